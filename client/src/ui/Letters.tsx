import { useLetters } from "../api/queries";
import { say } from "../texts/say";

/** What the mail stand-in wrote: shown by a demo or a development server only. */
export function Letters() {
  const letters = useLetters();
  if (!letters.data?.length) return null;
  return (
    <section aria-label={say("ui.letters")}>
      <h2>{say("ui.letters")}</h2>
      <p className="quiet">{say("ui.thisDemoSendsNoMailIts")}</p>
      {letters.data.map((letter) => (
        <details key={letter.when + letter.to}>
          <summary>{say("ui.to", { subject: letter.subject, to: letter.to })}</summary>
          <pre className="letter">
            {letter.text.split(/(https?:\/\/\S+)/).map((part, i) =>
              part.startsWith("http") ? (
                <a key={i} href={new URL(part).pathname}>
                  {part}
                </a>
              ) : (
                part
              ),
            )}
          </pre>
        </details>
      ))}
    </section>
  );
}
