import type { Report } from "../../api/client";

const MARK = { wrong: "×", watch: "!", fine: "·" };

/** What fits and what does not, apart from strength; and the caution that always stands. */
export function Remarks({ report }: { report: Report }) {
  return (
    <section aria-label="To know">
      <h2 style={{ marginTop: 12 }}>To know</h2>
      <ul className="notes">
        {report.remarks.map((remark) => (
          <li
            key={remark.key + remark.text}
            data-mark={MARK[remark.level]}
            className={remark.level === "fine" ? "quiet" : undefined}
          >
            {remark.text}
          </li>
        ))}
      </ul>
      <p className="quiet" style={{ fontSize: 13, marginTop: 10 }}>
        {report.cautions.at(-1)}
      </p>
    </section>
  );
}
