/** A judged reading in somebody's own units: what it is off by, and what a hand does about it. */
import type { Judged } from "../api/types";
import { lengthWithUnit, type Ruler } from "./units";

const HEAD: Record<Judged["where"], (size: string) => string> = {
  "": () => "",
  "too far": (size) => `Bring it ${size} closer`,
  "too near": (size) => `Take it ${size} further away`,
  "too high": (size) => `${size} too high`,
  "too low": (size) => `${size} too low`,
};

export function headOf(judged: Judged, ruler: Ruler): string {
  return HEAD[judged.where](lengthWithUnit(Math.abs(judged.off_m), ruler)) || judged.words;
}

/** What changes by less stays. */
const STAYS_M = 0.01;

export function moveOf(move: Judged["moves"][number], ruler: Ruler): string {
  const length = (m: number) => lengthWithUnit(Math.abs(m), ruler);
  const stays = move.others.filter(([, off]) => Math.abs(off) <= STAYS_M).map(([name]) => name);
  const goes = move.others
    .filter(([, off]) => Math.abs(off) > STAYS_M)
    .map(([name, off]) => `${name} is then ${length(off)} too ${off > 0 ? "far" : "near"}`);
  const verb = stays.length === 1 ? "stays" : "stay";
  const kept = stays.length ? [`${stays.join(" and ")} ${verb} within ${length(STAYS_M)}`] : [];
  const said = [...kept, ...goes].join(", ");
  const does = `${move.do} ${length(move.size_m)} ${move.aside}`.trimEnd();
  return said ? `${does}; ${said}.` : `${does}.`;
}
