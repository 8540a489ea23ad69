interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
  width: number;
  height: number;
}

/** Weeks across, gusts up. */
export function tideScale(box: Box, weeks: number, most: number) {
  const inner = Math.max(box.width - box.left - box.right, 40);
  const floor = box.height - box.bottom;
  return {
    inner,
    floor,
    x: (week: number) => box.left + (week / weeks) * inner,
    y: (gust: number) => floor - (Math.min(gust, most) / most) * (floor - box.top),
  };
}

/** The quay's edge: one step a week. */
export function quayEdge(
  values: readonly number[],
  x: (week: number) => number,
  y: (gust: number) => number,
): string {
  return values
    .map((value, i) => `${i ? "L" : "M"}${x(i).toFixed(1)} ${y(value).toFixed(1)}H${x(i + 1).toFixed(1)}`)
    .join("");
}

/** The water's surface with a small swell, closed down to the floor. */
export function waterline(
  values: readonly number[],
  x: (week: number) => number,
  y: (gust: number) => number,
  floor: number,
  swell: number,
): string {
  let d = `M${x(0)} ${floor}L${x(0)} ${y(values[0] ?? 0).toFixed(1)}`;
  values.forEach((value, i) => {
    const [a, b] = [y(value), y(values[i + 1] ?? value)];
    const mid = (x(i) + x(i + 1)) / 2;
    d += `Q${((x(i) + mid) / 2).toFixed(1)} ${(a - swell).toFixed(1)} ${mid.toFixed(1)} ${((a + b) / 2).toFixed(1)}T${x(i + 1).toFixed(1)} ${b.toFixed(1)}`;
  });
  return `${d}L${x(values.length)} ${floor}Z`;
}
