/** The drums and cymbals of a kit as one list, and where each stands. */
import type { Cymbal, Drum, Kit, Layout } from "../api/types";
import type { Point3 } from "./view";

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
