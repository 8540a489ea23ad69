import { Link } from "react-router";

export function NotHere() {
  return (
    <main className="page">
      <h1>Nothing stands here</h1>
      <p>
        The address leads nowhere, or to a garden that is not yours. <Link to="/">To your garden</Link>
      </p>
    </main>
  );
}
