/** Points of a drawn curve: values on a scale to a polyline of pixels. */

export interface Scale {
  low: number;
  high: number;
  from: number;
  to: number;
}

/** Where a value lies on a scale, in pixels. */
export function onScale(value: number, s: Scale): number {
  const span = s.high - s.low;
  return s.from + (span === 0 ? 0.5 : (value - s.low) / span) * (s.to - s.from);
}

/** A scale that holds every value with a little room, at least as wide as asked. */
export function scaleFor(
  values: readonly number[],
  least: number,
  from: number,
  to: number,
): Scale {
  const known = values.filter(Number.isFinite);
  const low = Math.min(...known, known.length ? Number.POSITIVE_INFINITY : 0);
  const high = Math.max(...known, known.length ? Number.NEGATIVE_INFINITY : 0);
  const room = Math.max(least - (high - low), (high - low) * 0.1) / 2;
  return { low: low - room, high: high + room, from, to };
}

/** The points of a polyline, for its `points`; values that are not there are left out. */
export function polyline(
  xs: readonly number[],
  ys: readonly (number | null)[],
  x: Scale,
  y: Scale,
): string {
  return xs
    .map((v, i) => [v, ys[i]] as const)
    .filter((p): p is readonly [number, number] => p[1] !== null && p[1] !== undefined)
    .map(([a, b]) => `${onScale(a, x).toFixed(1)},${onScale(b, y).toFixed(1)}`)
    .join(" ");
}

/** The index of the value nearest to one. */
export function nearest(values: readonly number[], to: number): number {
  let best = 0;
  values.forEach((v, i) => {
    if (Math.abs(v - to) < Math.abs((values[best] ?? 0) - to)) best = i;
  });
  return best;
}
