import { useState } from "react";

import { api, Refused, type Schemas, taken } from "../api/client";
import { say } from "../texts/say";

/** How to read the scale: what hangs on it, or nothing and why. */
export function useScale(garden: number) {
  const [reading, setReading] = useState(false);
  const read = async (): Promise<Schemas["ScaleOut"] | string> => {
    setReading(true);
    try {
      return await taken(
        api.POST("/api/gardens/{garden_id}/scale", { params: { path: { garden_id: garden } } }),
      );
    } catch (error) {
      const problem = error instanceof Refused ? error.problems[0] : undefined;
      return problem
        ? say("build.theScale", { given: problem.given, allowed: problem.allowed })
        : say("build.theServerDidNotAnswerEnter");
    } finally {
      setReading(false);
    }
  };
  return { reading, read };
}
