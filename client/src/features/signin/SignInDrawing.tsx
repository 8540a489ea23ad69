import { Hatch } from "../../drawing/Hatch";

const POSTS = [60, 180, 300, 420, 540, 660];

/** Cut earth and an empty fence standing in it: what waits behind the door. */
export function SignInDrawing() {
  return (
    <svg
      viewBox="0 0 720 230"
      width="100%"
      height="230"
      preserveAspectRatio="xMidYMax meet"
      aria-hidden="true"
      style={{ position: "fixed", insetInline: 0, bottom: 0, overflow: "visible", pointerEvents: "none" }}
    >
      <Hatch id="door" kind="loam" colour="var(--soil2)" />
      <rect x="-2000" y="140" width="5000" height="90" fill="var(--soil)" />
      <rect x="-2000" y="140" width="5000" height="90" fill="url(#door)" />
      <path d="M-2000 140H3000" stroke="var(--ink)" strokeWidth="2" />
      <path
        d={
          Array.from({ length: 7 }, (_, i) => `M60 ${38 + i * 15}H660`).join("") +
          Array.from({ length: 31 }, (_, i) => `M${60 + i * 20} 38V128`).join("")
        }
        stroke="var(--metal)"
        strokeWidth="0.7"
        opacity="0.7"
      />
      {POSTS.map((x) => (
        <path key={x} d={`M${x} 26V140M${x} 142V186`} stroke="var(--metal)" strokeWidth="4" />
      ))}
    </svg>
  );
}
