import { useMethod } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { say } from "../../texts/say";

/**
 * How Ascent calculates: docs/method.md as a page. The server makes the HTML from our own file and lets no
 * raw HTML through.
 */
export function MethodPage() {
  const method = useMethod();
  return (
    <>
      <Bar>
        <span className="grow" />
      </Bar>
      {method.data ? (
        <main className="page prose" dangerouslySetInnerHTML={{ __html: method.data.html }} />
      ) : (
        <p className="page quiet">{say("common.loading")}</p>
      )}
    </>
  );
}
