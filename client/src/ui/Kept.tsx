import { useFresh } from "../api/useFresh";
import { queue } from "../queue/queue";
import { useHeld, useLine, useWrites } from "../queue/useQueue";
import { laneOf } from "../queue/writes";

const many = (count: number) => (count === 1 ? "one change" : `${count} changes`);

/** The one word about saving: whether everything is kept, and what waits for what. */
export function Kept({ garden }: { garden: number }) {
  const writes = useWrites(laneOf(garden));
  const line = useLine();
  const unread = useHeld();
  const fresh = useFresh();
  const waiting = writes.filter((write) => write.state === "waiting").length;
  const stale = writes.some((write) => write.state === "stale");
  const aside = writes.filter((write) => write.state === "refused").length;
  const signIn = () => {
    fresh.signInAgain();
  };
  const word = () => {
    const late = unread.find((text) => text.late);
    if (late) return `no answer from the server: ‘${late.written}’ is stored on this device`;
    if (!queue.kept && writes.length)
      return "this browser cannot store changes: keep this page open until they are sent";
    if (stale) return "not saved";
    if (waiting && line === "out") return `signed out: ${many(waiting)} stored on this device`;
    if (waiting && line === "away")
      return `not sent yet: ${many(waiting)} stored on this device, trying again`;
    if (waiting || unread.length) return "Saving…";
    if (aside) return `${many(aside)} not saved: action needed`;
    return "saved";
  };
  return (
    <>
      <span className="quiet narrow saving" role="status">
        {word()}
      </span>
      {waiting > 0 && line === "out" && (
        <button type="button" className="plain" onClick={signIn}>
          sign in again
        </button>
      )}
    </>
  );
}
