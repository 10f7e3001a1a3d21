/** The open pair's places: where its spheres are cut on the chart, and where their lengths stand. */
import type { Board, Layout } from "../../api/types";
import { micOf } from "../../core/edits";
import { namePlaces } from "../../core/kitNames";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { meet, type Point2, type Taken, toScreen, type View } from "../../core/view";
import { firstDrum } from "../../core/words";
import { referenceOf } from "./Ground";

export type RingShape = NonNullable<NonNullable<Board["focus"]>["places"]>["ring"];

export interface PairPlaces {
  anchor: string;
  mover: string;
  ring: RingShape;
  /** From the anchor to both drums by tape, and the mover's height, metres. */
  snare_m: number;
  kick_m: number;
  height_m: number;
}

/** What is drawn of the open pair; null where its two are not kept equal. */
export function placesOf(board: Board | null, layout: Layout): PairPlaces | null {
  const focus = board?.focus;
  const mover = focus?.places && micOf(layout, focus.places.mover);
  if (!focus?.places || !mover || !micOf(layout, focus.places.anchor)) return null;
  const far = (kind: "snare" | "kick") => {
    const drum = firstDrum(layout, kind).id;
    return focus.rows.find((r) => r.source === drum)?.tape_a_m ?? 0;
  };
  const { anchor, ring } = focus.places;
  const [snare_m, kick_m] = [far("snare"), far("kick")];
  return { anchor, mover: mover.id, ring, snare_m, kick_m, height_m: mover.position_m[2] };
}

export interface Cut extends Taken {
  kind: "snare" | "kick";
  centre: Point2;
  r: number;
  said: string;
}

const LETTER = 6.1;
const HIGH = 13;

interface Asked {
  view: View;
  layout: Layout;
  places: PairPlaces | null;
  ruler: Ruler;
}

/** Two circles at the height of the mic that moves, each with its length where there is room. */
export function cutsOf({ view, layout, places, ruler }: Asked): Cut[] {
  if (!places || view.facing !== "above") return [];
  const stool = layout.kit.stool?.position_m;
  const taken = layout.mics.map((m) => toScreen(m.position_m, view));
  if (stool) taken.push(toScreen([...stool, 0], view));
  const names: Taken[] = namePlaces(layout, view);
  const out: Cut[] = [];
  for (const kind of ["snare", "kick"] as const) {
    const from = referenceOf(layout.kit, kind);
    // The number is the core's; only its circle on the drawing is worked out here.
    const reach = kind === "snare" ? places.snare_m : places.kick_m;
    const cut = reach ** 2 - (places.height_m - from[2]) ** 2;
    if (cut <= 0) continue;
    const [centre, r] = [toScreen(from, view), Math.sqrt(cut) * view.scale];
    const said = lengthWithUnit(reach, ruler);
    const size = { wide: said.length * LETTER, high: HIGH };
    const at = freest(centre, r, size, view, taken, [...names, ...out]);
    taken.push(at);
    out.push({ kind, centre, r, said, at, ...size });
  }
  return out;
}

const AROUND = Array.from({ length: 48 }, (_, i) => (i / 48) * 2 * Math.PI);
const ON_A_NAME = 200;
const OUTSIDE = 400;

/** Where on a circle a number stands furthest from the mics, off every name, within the drawing. */
function freest(
  centre: Point2,
  r: number,
  size: Pick<Taken, "wide" | "high">,
  view: View,
  taken: readonly Point2[],
  names: readonly Taken[],
): Point2 {
  let [best, most] = [centre, Number.NEGATIVE_INFINITY];
  for (const angle of AROUND) {
    const at: Point2 = [centre[0] + r * Math.cos(angle), centre[1] + r * Math.sin(angle)];
    const [x, y] = at;
    const inside = x > 35 && x < view.width - 35 && y > 15 && y < view.height - 15;
    const away = Math.min(...taken.map((p) => Math.hypot((p[0] - x) * 0.7, p[1] - y)), 90);
    const clear = !names.some((n) => meet({ at, ...size }, n, 2));
    const room = away - (clear ? 0 : ON_A_NAME) - (inside ? 0 : OUTSIDE);
    if (room > most) [best, most] = [at, room];
  }
  return best;
}
