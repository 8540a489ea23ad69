import { useEffect, useRef, useState } from "react";

import { type Draft, onlyBusy, type Problem, Refused, type Report } from "../../api/client";
import { reportOf } from "../../api/calculated";
import { FIRST_PAUSE_MS } from "../../queue/pauses";
import { say } from "../../texts/say";

/**
 * The report of a draft, asked for while the hand is on the control: one question in flight, the latest wins,
 * and none once it is left.
 */
export function useReport(id: number, draft: Draft, day: string | null, units: string) {
  const [report, setReport] = useState<Report | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  const waiting = useRef<{ draft: Draft; day: string | null } | null>(null);
  const asking = useRef(false);
  const left = useRef(new AbortController());

  useEffect(() => {
    const here = new AbortController();
    left.current = here;
    return () => here.abort();
  }, [id]);
  useEffect(() => {
    waiting.current = { draft, day };
    const ask = async () => {
      if (asking.current) return;
      asking.current = true;
      for (let next = waiting.current; next; next = waiting.current) {
        waiting.current = null;
        const { signal } = left.current;
        try {
          setReport(await reportOf(id, next, signal));
          setProblems([]);
        } catch (error) {
          if (signal.aborted) continue;
          if (onlyBusy(error)) {
            waiting.current ??= next;
            await new Promise((then) => setTimeout(then, FIRST_PAUSE_MS));
            continue;
          }
          setProblems(
            error instanceof Refused
              ? error.problems
              : [{ path: "server", given: "", allowed: say("bench.theServerDidNotAnswer"), suggestion: "" }],
          );
        }
      }
      asking.current = false;
    };
    void ask();
  }, [id, draft, day, units]);
  return { report, problems };
}
