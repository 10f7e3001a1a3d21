/** A sentence of the core with its lengths in somebody's own units. */
import type { Told } from "../api/types";
import { lengthWithUnit, type Ruler } from "./units";

const GAP = "{}";

export function worded(told: Told, ruler: Ruler): string {
  const [first = "", ...rest] = told.text.split(GAP);
  return rest.reduce((said, next, n) => said + size(told, n, ruler) + next, first);
}

/** What is known to a centimetre or so is told without what is finer. */
function size({ lengths_m, whole }: Told, n: number, ruler: Ruler): string {
  const metres = lengths_m[n] ?? 0;
  return whole && ruler.units === "cm"
    ? `${Math.round(metres * 100)} cm`
    : lengthWithUnit(metres, ruler);
}
