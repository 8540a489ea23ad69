import { Link } from "react-router";

export function NotHere() {
  return (
    <main className="page">
      <h1>This page does not exist</h1>
      <p>
        The address is wrong, or the garden is not shared with you. <Link to="/">To your garden</Link>
      </p>
    </main>
  );
}
