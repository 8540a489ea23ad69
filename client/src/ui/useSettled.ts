import { useEffect, useState } from "react";

const PAUSE = 500; // milliseconds without a change

/** A value once it has not changed for a moment, so that what follows is not asked for while a hand drags. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
