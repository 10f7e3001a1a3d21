/** Points of a drawn curve: values on a scale to pixels of a path. */

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

/** A line through what is known, for a path's `d`: it breaks at gaps, and a lone point is a dot. */
export function trace(
  xs: readonly number[],
  ys: readonly (number | null)[],
  x: (v: number) => number,
  y: (v: number) => number,
): string {
  const known = (i: number) => (ys[i] ?? null) !== null && xs[i] !== undefined;
  return xs
    .map((v, i) => {
      if (!known(i)) return "";
      const begun = known(i - 1);
      const lone = !begun && !known(i + 1) ? "h0" : "";
      return `${begun ? "L" : "M"}${x(v).toFixed(1)} ${y(ys[i] as number).toFixed(1)}${lone}`;
    })
    .join("");
}

/** The index of the value nearest to one. */
export function nearest(values: readonly number[], to: number): number {
  let best = 0;
  values.forEach((v, i) => {
    if (Math.abs(v - to) < Math.abs((values[best] ?? 0) - to)) best = i;
  });
  return best;
}
