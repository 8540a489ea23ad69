/** What a page leaves out because of a fault, said where it would stand. */
export function LeftOut({ words }: { words: readonly string[] }) {
  return words.map((each) => (
    <p key={each} role="alert" className="refusal">
      {each}
    </p>
  ));
}
