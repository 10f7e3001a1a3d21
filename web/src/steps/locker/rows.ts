/** The four kinds of things in a locker, in the words of its tables. */
import type { CableKind, InputBank, Locker, MicModel, StandModel } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";

export type Kind = "mics" | "stands" | "inputs" | "cables";
export type Row = MicModel | StandModel | InputBank | CableKind;

export const KINDS: { kind: Kind; title: string; heads: string[] }[] = [
  {
    kind: "mics",
    title: "Mics",
    heads: ["Name", "How many", "Kind", "Patterns", "Phantom", "Care"],
  },
  { kind: "stands", title: "Stands", heads: ["Name", "How many", "Clip", "Boom", "Weight"] },
  { kind: "inputs", title: "Inputs", heads: ["Name", "How many", "Phantom", "Most it takes"] },
  { kind: "cables", title: "Cables", heads: ["Name", "How many", "Length"] },
];

export function rowsOf(locker: Locker, kind: Kind): Row[] {
  return locker[kind];
}

const PHANTOM = { each: "for each input", bank: "one switch for all", none: "none" };

/** The cells after name and count. */
export function summaryOf(kind: Kind, row: Row, ruler: Ruler): string[] {
  if (kind === "mics") {
    const m = row as MicModel;
    const care = [m.fragile && "fragile to air", m.matched && "matched"].filter(Boolean);
    return [m.kind, m.patterns.join(", "), m.phantom ? "yes" : "", care.join(", ")];
  }
  if (kind === "stands") {
    const s = row as StandModel;
    const clip = `${lengthWithUnit(s.low_m, ruler)} to ${lengthWithUnit(s.high_m, ruler)}`;
    return [clip, s.reach_m ? lengthWithUnit(s.reach_m, ruler) : "straight", `${s.weight_kg} kg`];
  }
  if (kind === "inputs") {
    const b = row as InputBank;
    const most = b.max_level_dbu ?? null;
    return [PHANTOM[b.phantom], most === null ? "" : `${most} dBu`];
  }
  return [lengthWithUnit((row as CableKind).length_m, ruler)];
}

const FRESH = {
  mics: {
    name: "New mic",
    kind: "condenser",
    patterns: ["cardioid"],
    setback_m: 0,
    phantom: false,
    pads_db: [],
    low_cuts_hz: [],
    fragile: false,
    matched: false,
    count: 1,
    cost: 0,
  },
  stands: {
    name: "New stand",
    low_m: 0.9,
    high_m: 1.6,
    reach_m: 0.8,
    weight_kg: 3,
    count: 1,
    cost: 0,
  },
  inputs: { name: "New inputs", count: 8, phantom: "each" },
  cables: { name: "New cables", length_m: 6, count: 1 },
};

/** One more of a kind under a short name that is not taken. */
export function newRow(kind: Kind, locker: Locker): Row {
  const taken = new Set(rowsOf(locker, kind).map((r) => r.id));
  const stem = kind.slice(0, -1);
  let n = 1;
  while (taken.has(`${stem}-${n}`)) n++;
  return { ...FRESH[kind], id: `${stem}-${n}` } as Row;
}
