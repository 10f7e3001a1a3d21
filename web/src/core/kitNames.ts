/** Where the names of drums and cymbals stand in the plan; plates keep off these spots. */
import type { Kit, Layout } from "../api/types";
import { bodyOf } from "./micPose";
import { meet, type Point2, type Taken, toScreen, type View } from "./view";

const NAME_HIGH = 11;

/** What a mic covers, about the middle of its body. */
const MIC = { wide: 16, high: 16 };

/** As wide as a name is drawn at this size. */
const nameWide = (name: string) => name.length * 5.6;

export type NamePlace = Taken & { id: string; name: string };

/** A drum or cymbal on the plan, pixels. */
interface Shown {
  id: string;
  name: string;
  at: Point2;
  r: number;
  kick: boolean;
}

/**
 * Ways a name may stand on its disc, radii across and down, the usual one first: at the foot, there
 * beside a mic, in the middle, at the head.
 */
const WAYS: readonly Point2[] = [
  [0, 0.62],
  [0.28, 0.62],
  [-0.28, 0.62],
  [0, 0.3],
  [0, 0.86],
  [0, -0.5],
  [0.28, -0.5],
  [-0.28, -0.5],
];

/** Beside the batter of a kick, which is seen from its edge: on one side of the pedal, or the other. */
const KICK_WAYS = [0.72, -0.72];

function shown(kit: Kit, view: View): Shown[] {
  const one = (p: { id: string; name: string; diameter_m: number }, at: readonly number[]) => {
    const [x = 0, y = 0, z = 0] = at;
    return {
      id: p.id,
      name: p.name,
      at: toScreen([x, y, z], view),
      r: (p.diameter_m / 2) * view.scale,
      kick: "kind" in p && p.kind === "kick",
    };
  };
  const drums = kit.drums.map((d) => one(d, d.batter_m));
  const cymbals = (kit.cymbals ?? []).map((c) => one(c, c.centre_m));
  // Kicks last: theirs stand beside them, where others may be.
  return [...drums, ...cymbals].sort((a, b) => Number(a.kick) - Number(b.kick));
}

/** The middle of a name that stands in one of its ways. */
function placed({ at: [x, y], r, kick }: Shown, way: number, view: View): Point2 {
  if (kick) {
    const down = view.side === "drummer";
    return [x + (down ? 1 : -1) * r * (KICK_WAYS[way] ?? 0), y + (down ? 10 : -11)];
  }
  const [across, along] = WAYS[way] ?? [0, 0];
  // The text stands on its foot: its middle is a little above.
  return [x + r * across, y + r * along - 4];
}

/**
 * The places of all names; one that its drum is too small for is left out. Each stands in the first
 * of its ways in which no mic lies on it, by where drums and mics are at rest: under a hand it goes
 * along with its drum, and does not change from one way to another.
 */
export function namePlaces(layout: Layout, view: View, rest = layout): NamePlace[] {
  if (view.facing !== "above") return [];
  const ways = waysOf(rest, view);
  return shown(layout.kit, view).flatMap((part) => {
    const way = ways.get(part.id);
    if (way === undefined) return [];
    const { id, name } = part;
    return [{ id, name, at: placed(part, way, view), wide: nameWide(name), high: NAME_HIGH }];
  });
}

/** Of a layout in the view it was asked for last: names, plates and lengths ask for the same. */
const known = new WeakMap<Layout, { view: View; ways: Map<string, number> }>();

function waysOf(rest: Layout, view: View): Map<string, number> {
  const was = known.get(rest);
  if (was?.view === view) return was.ways;
  const ways = chosen(rest, view);
  known.set(rest, { view, ways });
  return ways;
}

function chosen({ kit, mics }: Layout, view: View): Map<string, number> {
  const bodies = mics.map((m): Taken => ({ at: bodyOf(m, view).body, ...MIC }));
  const ways = new Map<string, number>();
  const kept: Taken[] = [];
  for (const part of shown(kit, view)) {
    const wide = nameWide(part.name);
    if (wide >= part.r * 2.2) continue;
    const spots = (part.kick ? KICK_WAYS : WAYS).map(
      (_, way): Taken => ({ at: placed(part, way, view), wide, high: NAME_HIGH }),
    );
    const free = (spot: Taken) => !kept.some((k) => meet(k, spot, 1));
    const clear = (spot: Taken) => free(spot) && !bodies.some((b) => meet(b, spot));
    const spot = spots.find(clear) ?? spots.find(free);
    if (!spot) continue;
    ways.set(part.id, spots.indexOf(spot));
    kept.push(spot);
  }
  return ways;
}
