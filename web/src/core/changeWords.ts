/** One difference between two layouts as a sentence, in tape terms. */
import type { Change } from "../api/types";
import { lengthWithUnit, type Ruler } from "./units";

export function changeWords(c: Change, ruler: Ruler): string {
  const told = `${c.what}: ${c.words}`;
  if (c.moved_m == null) return told;
  const t = (m: number) => lengthWithUnit(m, ruler);
  const moved = `${told} ${t(c.moved_m)}`;
  if (!c.snare_m || !c.kick_m) return moved;
  const [snare, kick] = [c.snare_m, c.kick_m].map(([was, now]) => `${t(was)} → ${t(now)}`);
  return `${moved}; snare ${snare}, kick ${kick}`;
}
