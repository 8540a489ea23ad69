import { Outlet } from "react-router";

import { useSession } from "../api/queries";
import { SignIn } from "../features/signin/SignIn";

/** Everything inside needs someone signed in. */
export function Shell() {
  const session = useSession();
  if (session.isPending) return <p className="page quiet">One moment…</p>;
  if (session.isError) return <p className="page">The server does not answer. Is it running? Then reload this page.</p>;
  return session.data.name === null ? <SignIn /> : <Outlet />;
}
