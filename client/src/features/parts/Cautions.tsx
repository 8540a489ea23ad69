import { say } from "../../texts/say"; /** What to take care of before anything is built. */
export function Cautions({ texts }: { texts: readonly string[] }) {
  if (!texts.length) return null;
  return (
    <>
      <h2 style={{ marginTop: 26 }}>{say("parts.beforeYouBuild")}</h2>
      <ul className="notes">
        {texts.map((text) => (
          <li key={text} data-mark="!">
            {text}
          </li>
        ))}
      </ul>
    </>
  );
}
