import type { Report } from "../../api/client";
import { say } from "../../texts/say";

/** The answer first: how strong a gust, what fails, when. */
export function Answer({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <section className="answer" aria-label={say("bench.whatItHolds")} aria-live="polite">
      <p className="verdict">
        <span className={h.limit > 0 ? "big" : "some"}>{h.limit_text}</span>
        <span className="word">{say("bench.needs", { words: h.words, designText: h.required_text })}</span>
      </p>
      <p style={{ fontSize: 14 }}>{h.sentence}</p>
    </section>
  );
}

/** What stands beside the answer: as a forecast, after rain, by typical strengths, how often it fails. */
export function AnswerMore({ report }: { report: Report }) {
  const { headline: h } = report;
  return (
    <div className="answer more">
      <dl>
        {h.forecast_text && (
          <>
            <dt>{say("bench.asAForecastGust")}</dt>
            <dd>{h.forecast_text}</dd>
          </>
        )}
        <dt>{say("bench.afterDaysOfRain")}</dt>
        <dd>{h.saturated_text}</dd>
        <dt>{say("bench.aboutHalfWouldFailAt")}</dt>
        <dd>{h.median_text}</dd>
        <dt>{say("bench.expectedToFail")}</dt>
        <dd>
          {h.return_period_text}{" "}
          {h.return_period_range && <span className="quiet">({h.return_period_range})</span>}
        </dd>
      </dl>
      {h.required_said && <p className="quiet">{h.required_said}</p>}
      {h.taught_said && <p className="quiet">{h.taught_said}</p>}
    </div>
  );
}
