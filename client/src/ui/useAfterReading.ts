import { type SubmitEvent, useLayoutEffect, useRef } from "react";

import { held } from "../queue/held";

/**
 * Sends a form once every quantity written in it has been read: whoever presses right after writing loses
 * nothing, and nothing goes while one is refused.
 */
export function useAfterReading(send: () => void) {
  const latest = useRef(send);
  useLayoutEffect(() => {
    latest.current = send;
  });
  return async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    await held.quiet();
    if (!form.querySelector("[aria-invalid='true']")) latest.current();
  };
}
