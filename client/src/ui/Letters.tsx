import { useLetters } from "../api/queries";

/** What the mail stand-in wrote: shown by a demo or a development server only. */
export function Letters() {
  const letters = useLetters();
  if (!letters.data?.length) return null;
  return (
    <section aria-label="Letters">
      <h2>Letters</h2>
      <p className="quiet">This demo sends no mail. Its letters are shown here.</p>
      {letters.data.map((letter) => (
        <details key={letter.when + letter.to}>
          <summary>
            {letter.subject}, to {letter.to}
          </summary>
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
