import { useFresh } from "../api/useFresh";
import { queue } from "../queue/queue";
import { useHeld, useLine, useWrites } from "../queue/useQueue";
import { laneOf } from "../queue/writes";
import { say } from "../texts/say";

const many = (count: number) => (count === 1 ? say("ui.oneChange") : say("ui.changes", { count }));

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
    if (late) return say("ui.noAnswerFromTheServerIs", { written: late.written });
    if (!queue.kept && writes.length) return say("ui.thisBrowserCannotStoreChangesKeep");
    if (stale) return say("ui.notSaved");
    if (waiting && line === "out") return say("ui.signedOutStoredOnThisDevice", { waiting: many(waiting) });
    if (waiting && line === "away") return say("ui.notSentYetStoredOnThis", { waiting: many(waiting) });
    if (waiting || unread.length) return say("ui.saving");
    if (aside) return say("ui.notSavedActionNeeded", { aside: many(aside) });
    return "saved";
  };
  return (
    <>
      <span className="quiet narrow saving" role="status">
        {word()}
      </span>
      {waiting > 0 && line === "out" && (
        <button type="button" className="plain" onClick={signIn}>
          {say("ui.signInAgain")}
        </button>
      )}
    </>
  );
}
