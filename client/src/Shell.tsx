import { Outlet } from "react-router";

import { useGardens, useSession } from "./api/queries";
import { SignIn } from "./features/signin/SignIn";
import { useQueueRoom } from "./queue/useQueueRoom";
import { Commander } from "./ui/Commander";
import { useHeadingFocus } from "./ui/useHeadingFocus";
import { say } from "./texts/say";

/** Everything inside needs someone signed in, or a read-only link opened before. */
export function Shell() {
  const session = useSession();
  const gardens = useGardens();
  const ready = useQueueRoom(session.data?.name);
  useHeadingFocus();
  if (session.isPending || gardens.isPending || !ready)
    return <p className="page quiet">{say("common.loading")}</p>;
  if (session.isError) return <p className="page">{say("app.theServerDoesNotAnswerIs")}</p>;
  if (session.data.name === null && !gardens.data?.length) return <SignIn />;
  return (
    <>
      <Outlet />
      <Commander />
    </>
  );
}
