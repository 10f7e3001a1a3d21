/**
 * What a hand carries, and what goes along, looks the same elsewhere: the drawing of where it stood
 * is shifted, and not made anew.
 */
import type { Layout, Mic } from "../api/types";
import { centreOf, isDrum, type Part, partsOf } from "./kitParts";
import { sameParts } from "./same";
import { type Facing, type Point2, type Point3, toScreen, type View } from "./view";

/** Where a hand has what it carries, for a drawing that is not made anew meanwhile. */
export interface Carrying {
  /** The layout as the hand has it; null where the drawing is made anew of that. */
  now: () => Layout | null;
  subscribe: (listener: () => void) => () => void;
}

/** What a drawing calls the group of each that can be carried. */
export const partGoes = (id: string) => `part ${id}`;
export const micGoes = (id: string) => `mic ${id}`;

/**
 * What to draw: what stood before the hand came, as long as all that differs since stands elsewhere
 * only. A cymbal's stand gets longer as it is lifted, which is seen from the side.
 */
export function drawnOf(doc: Layout, still: Layout, facing: Facing): Layout {
  if (doc === still) return still;
  if (found.doc !== doc || found.still !== still) found = { doc, still, only: new Map() };
  const only = found.only.get(facing) ?? onlyCarried(doc, still, facing);
  found.only.set(facing, only);
  return only ? still : doc;
}

/** Of the newest layout: every drawing asks several times a frame. */
let found: { doc?: Layout; still?: Layout; only: Map<Facing, boolean> } = { only: new Map() };

/** Of a kit: which places were drawn and which taped, which change with what is carried. */
const NOT_DRAWN = ["drawn", "readings"];

function onlyCarried(doc: Layout, still: Layout, facing: Facing): boolean {
  const [now, was] = [partsOf(doc), partsOf(still)];
  return (
    sameParts(doc, still, ["kit", "mics"]) &&
    sameParts(doc.kit, still.kit, ["drums", "cymbals", ...NOT_DRAWN]) &&
    eachOf(now, was, (a, b) => partCarried(a, b, facing)) &&
    eachOf(doc.mics, still.mics, micCarried)
  );
}

function eachOf<T>(now: T[], was: T[], carried: (now: T, was: T) => boolean): boolean {
  return (
    now.length === was.length && now.every((one, i) => one === was[i] || carried(one, was[i] as T))
  );
}

function partCarried(now: Part, was: Part, facing: Facing): boolean {
  const lifted = !isDrum(now) && centreOf(now)[2] !== centreOf(was)[2];
  return !(lifted && facing !== "above") && sameParts(now, was, ["batter_m", "centre_m"]);
}

/** An aim that was turned by nothing may differ in its last digit. */
const AIM_DIGIT = 1e-9;

function micCarried(now: Mic, was: Mic): boolean {
  const turned = now.aim.some((a, i) => Math.abs(a - (was.aim[i] ?? a)) > AIM_DIGIT);
  return !turned && sameParts(now, was, ["position_m", "aim"]);
}

/** How far each has gone from where it is drawn, pixels; those that stand are left out. */
export function shiftsOf(drawn: Layout, doc: Layout, view: View): Map<string, Point2> {
  const shifts = new Map<string, Point2>();
  const put = <T extends { id: string }>(
    now: T[],
    was: T[],
    name: (id: string) => string,
    at: (one: T) => Point3,
  ) => {
    for (const [i, one] of now.entries()) {
      const before = was[i]?.id === one.id ? was[i] : was.find((w) => w.id === one.id);
      if (!before || before === one) continue;
      const [from, to] = [toScreen(at(before), view), toScreen(at(one), view)];
      shifts.set(name(one.id), [to[0] - from[0], to[1] - from[1]]);
    }
  };
  put(partsOf(doc), partsOf(drawn), partGoes, centreOf);
  put(doc.mics, drawn.mics, micGoes, (m) => m.position_m);
  return shifts;
}
