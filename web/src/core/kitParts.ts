/** The drums and cymbals of a kit as one list, and where each stands. */
import type { Cymbal, Drum, Kit, Layout } from "../api/types";
import { type Point3, toScreen, type View } from "./view";

export type Part = Drum | Cymbal;

export const isDrum = (part: Part): part is Drum => "batter_m" in part;

export function partsOf(layout: { kit: Kit }): Part[] {
  return [...layout.kit.drums, ...(layout.kit.cymbals ?? [])];
}

export function partOf(layout: { kit: Kit }, id: string | null): Part | undefined {
  return partsOf(layout).find((p) => p.id === id);
}

export function centreOf(part: Part): Point3 {
  return isDrum(part) ? part.batter_m : part.centre_m;
}

/** The part with its centre elsewhere, not under the floor. */
export function partAt(part: Part, to: Point3): Part {
  const p: [number, number, number] = [to[0], to[1], Math.max(0, to[2])];
  return isDrum(part) ? { ...part, batter_m: p } : { ...part, centre_m: p };
}

/** The layout with this part in the place of the one of its name; nothing else goes along. */
export function withPart(layout: Layout, part: Part): Layout {
  const put = <T extends Part>(some: T[]) => some.map((p) => (p.id === part.id ? (part as T) : p));
  const { kit } = layout;
  return { ...layout, kit: { ...kit, drums: put(kit.drums), cymbals: put(kit.cymbals ?? []) } };
}

/** A part as it is drawn, and how far that drawing has been carried since, for its group. */
export interface Carried<P extends Part> {
  drawn: P;
  shift: string | undefined;
}

/**
 * While a hand carries a part it looks the same elsewhere: the drawing of where it stood is shifted,
 * and not made anew. A cymbal's stand gets longer as it is lifted, which is seen from the side.
 */
export function carried<P extends Part>(now: P, still: { kit: Kit }, view: View): Carried<P> {
  const was = partOf(still, now.id) as P | undefined;
  if (!was || was === now || !onlyElsewhere(was, now)) return { drawn: now, shift: undefined };
  const [from, to] = [centreOf(was), centreOf(now)];
  const lifted = view.facing !== "above" && !isDrum(now) && from[2] !== to[2];
  if (lifted) return { drawn: now, shift: undefined };
  const [a, b] = [toScreen(from, view), toScreen(to, view)];
  return { drawn: was, shift: `translate(${b[0] - a[0]} ${b[1] - a[1]})` };
}

const PLACES = new Set(["batter_m", "centre_m"]);

function onlyElsewhere(was: Part, now: Part): boolean {
  const keys = new Set([...Object.keys(was), ...Object.keys(now)]) as Set<keyof Part>;
  return [...keys].every((k) => PLACES.has(k) || Object.is(was[k], now[k]));
}
