interface Props {
  x: number;
  y: number;
  strength: 1 | 2;
  text: string;
}

/** The wind that bends the end view: streaks from the left and its speed. */
export function WindArrow({ x, y, strength, text }: Props) {
  const rows = strength === 2 ? [-14, -5, 4, 13] : [-6, 5];
  const long = strength === 2 ? 30 : 22;
  return (
    <g pointerEvents="none">
      {rows.map((row, i) => (
        <path
          key={row}
          d={`M${x - 26 + (i % 2) * 5} ${y + row}q${long / 3} -3 ${long / 2} 0t${long / 2} 0m-5 -3.5l5.5 3.5l-5.5 3.5`}
          stroke="var(--water)"
          strokeWidth={strength === 2 ? 2 : 1.5}
          fill="none"
        />
      ))}
      <text x={x - 26} y={y - 20} className="caption ink">
        {text}
      </text>
    </g>
  );
}
