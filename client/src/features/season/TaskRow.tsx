import Checkbox from "@mui/material/Checkbox";
import { useId, useState } from "react";
import { Link } from "react-router";

import type { Schemas } from "../../api/client";
import { type Task, useSkipped } from "../../api/season";
import { say } from "../../texts/say";

interface Props {
  task: Task;
  of: Schemas["Standing"];
  onMark: ((state: Schemas["Marked"]["state"] | null) => void) | null;
}

const STATES = { done: "done", skipped: "skipped", "not-needed": say("season.notNeeded") } as const;
const SHEETS = ["build", "build-day", "take-down"];

/** A task: one tick for a thumb, why in a line; how and with what when it is opened. */
export function TaskRow({ task, of, onMark }: Props) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const skipped = useSkipped(of.id, open && task.job === "pick");
  return (
    <li className="task" data-state={task.state ?? "open"}>
      {onMark && (
        <Checkbox
          checked={task.state === "done"}
          indeterminate={task.state !== null && task.state !== "done"}
          slotProps={{ input: { "aria-labelledby": id } }}
          onChange={() => onMark(task.state === null ? "done" : null)}
        />
      )}
      <div>
        <button
          type="button"
          className="taskname"
          aria-expanded={open}
          onClick={() => setOpen((now) => !now)}
        >
          <span id={id}>{task.title}</span>{" "}
          <span className="quiet">
            {task.minutes > 0 && say("season.min3", { minutes: task.minutes })}
            {task.state !== null && ` · ${STATES[task.state]}`}
            {task.late && " · late"}
          </span>
        </button>
        {task.waits && task.state === null && (
          <p className="waits">
            <strong>{task.waits}</strong>
          </p>
        )}
        <p className="quiet">{task.why}</p>
        {open && (
          <>
            <p>{task.how}</p>
            <p className="quiet">{say("season.with", { tools: task.tools })}</p>
            {skipped.data && <p className="quiet">{skipped.data.words}</p>}
            {SHEETS.includes(task.job) && (
              <p>
                <Link to={`/structures/${of.id}/build`}>
                  {say("season.theBuildSheetOf", { name: of.name })}
                </Link>
              </p>
            )}
            {onMark && task.state === null && (
              <p>
                <button type="button" className="plain" onClick={() => onMark("skipped")}>
                  {say("season.skipThisTime")}
                </button>
                <button type="button" className="plain" onClick={() => onMark("not-needed")}>
                  {say("season.notNeeded")}
                </button>
              </p>
            )}
          </>
        )}
      </div>
    </li>
  );
}
