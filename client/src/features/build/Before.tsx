import Button from "@mui/material/Button";

import type { Building } from "../../api/building";
import type { Schemas } from "../../api/client";
import { editsWrite } from "../../queue/asks";
import { queue } from "../../queue/queue";
import { say } from "../../texts/say";

/** What to look for before anything is driven, whom to ask, what to carry. */
export function Before({ building }: { building: Building }) {
  const { before } = building.report;
  const move = (way: Schemas["ClearWay"]) =>
    queue.put(
      editsWrite(
        building.garden,
        [
          {
            kind: "structure",
            act: "change",
            key: building.key,
            change: { along: way.along, across: way.across, options: way.options },
          },
        ],
        `${building.report.name}: ${way.text.toLowerCase()}`,
      ),
    );
  return (
    <section className="before">
      {before.remarks.length > 0 && (
        <>
          <h2>{say("build.checkThisDesignFirst")}</h2>
          <ul>
            {before.remarks.map((line) => (
              <li key={line.text}>
                {line.wrong ? <strong className="weak">{line.text}</strong> : line.text}
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>{say("build.pipesAndCables")}</h2>
      <ul>
        {before.services.map((line) => (
          <li key={line.text}>{line.wrong ? <strong className="weak">{line.text}</strong> : line.text}</li>
        ))}
      </ul>
      {before.ways.length > 0 && building.may_edit && (
        <p className="actions">
          {before.ways.map((way) => (
            <Button key={way.text} variant="outlined" onClick={() => move(way)}>
              {way.text}
            </Button>
          ))}
        </p>
      )}
      {before.around.length > 0 && (
        <>
          <h2>{say("build.surroundings")}</h2>
          <ul>
            {before.around.map((line) => (
              <li key={line.text}>
                {line.wrong ? <strong className="weak">{line.text}</strong> : line.text}
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>{say("build.permission")}</h2>
      {before.ask.length > 0 ? (
        <ul>
          {before.ask.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      ) : (
        <p>{say("build.noWallOrFenceOfSomeone")}</p>
      )}
      <h2>{say("build.theSoil")}</h2>
      <p>{before.soil}</p>
      <h2>{say("build.timeAndPeople")}</h2>
      <p>
        {say("build.byTheClock", {
          clock: before.clock,
          people:
            before.people === 1
              ? say("build.onePerson")
              : say("build.peopleAtSomeSteps", { people: before.people }),
        })}
        {before.work && say("build.ofWorkInAll", { work: before.work })}.
      </p>
      <h2>{say("build.toolsAndMaterial")}</h2>
      <div className="carry">
        <div>
          <h3>{say("build.tools")}</h3>
          <ul>
            {before.tools.map((tool) => (
              <li key={tool}>{tool}</li>
            ))}
          </ul>
        </div>
        <div>
          <h3>{say("build.material")}</h3>
          <ul>
            {before.carry.map((piece) => (
              <li key={piece}>{piece}</li>
            ))}
          </ul>
        </div>
        <div>
          <h3>{say("build.protectiveGear")}</h3>
          <ul>
            {before.gear.map((piece) => (
              <li key={piece}>{piece}</li>
            ))}
          </ul>
        </div>
      </div>
      <h2>{say("build.takeCare")}</h2>
      <ul>
        {before.cautions.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </section>
  );
}
