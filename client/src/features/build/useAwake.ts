import { useEffect, useState } from "react";

/** Keeps the screen awake while that is wished; a browser that cannot says nothing of it. */
export function useAwake() {
  const [awake, setAwake] = useState(false);
  const can = "wakeLock" in navigator;
  useEffect(() => {
    if (!awake || !can) return;
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const take = () =>
      void navigator.wakeLock
        .request("screen")
        .then((taken) => {
          lock = taken;
          if (left) void taken.release();
        })
        .catch(() => setAwake(false));
    // a page that was out of sight has lost it
    const again = () => document.visibilityState === "visible" && take();
    take();
    document.addEventListener("visibilitychange", again);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, [awake, can]);
  return { can, awake, setAwake };
}
