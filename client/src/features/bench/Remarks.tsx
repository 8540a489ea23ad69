import type { Report, Schemas } from "../../api/client";
import { say } from "../../texts/say";

const MARK = { wrong: "×", watch: "!", fine: "·" };

function Notes({ remarks }: { remarks: readonly Schemas["RemarkReport"][] }) {
  return (
    <ul className="notes">
      {remarks.map((remark) => (
        <li
          key={remark.key + remark.text}
          data-mark={MARK[remark.level]}
          className={remark.level === "fine" ? "quiet" : undefined}
        >
          {remark.text}
        </li>
      ))}
    </ul>
  );
}

export const warningsOf = (report: Report | null) =>
  report?.remarks.filter((remark) => remark.level !== "fine") ?? [];

/** What does not fit, and what to watch: it stands beside the answer. */
export function Warnings({ report }: { report: Report }) {
  const serious = warningsOf(report);
  if (!serious.length) return null;
  return (
    <section aria-label={say("bench.toWatch")}>
      <Notes remarks={serious} />
    </section>
  );
}

/** What fits, and the caution that always stands. */
export function Remarks({ report }: { report: Report }) {
  const fine = report.remarks.filter((remark) => remark.level === "fine");
  return (
    <section aria-label={say("bench.toKnow")}>
      <h2 style={{ marginTop: 12 }}>{say("bench.toKnow")}</h2>
      {fine.length > 0 && <Notes remarks={fine} />}
      <p className="quiet" style={{ fontSize: 13, marginTop: 10 }}>
        {report.cautions.at(-1)}
      </p>
    </section>
  );
}
