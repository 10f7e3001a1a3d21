/** Finding a technique, and wording its numbers. No rule of the trade is here. */
import type { Layout, NumberRow, Technique } from "../api/types";
import { lengthWithUnit, type Ruler } from "./units";

/** The techniques that a search and a group leave, in the order of the list. */
export function found(all: readonly Technique[], words: string, group: string): Technique[] {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter((t) => {
    if (group && t.group !== group) return false;
    const text = `${t.name} ${t.also} ${t.group} ${t.gives}`.toLowerCase();
    return asked.every((w) => text.includes(w));
  });
}

/** A number with its unit, as somebody reads it. */
export function numberText(value: number, n: Pick<NumberRow, "unit">, ruler: Ruler): string {
  if (n.unit === "m") return lengthWithUnit(value, ruler);
  if (n.unit === "deg") return `${value.toFixed(0)}°`;
  if (n.unit === "clock") return `${clockText(value)} o'clock`;
  return value.toFixed(2);
}

/** Hours and halves read as hours; 0 is 12. */
export function clockText(hours: number): string {
  const h = ((hours % 12) + 12) % 12;
  const shown = h < 0.05 || h > 11.95 ? 12 : h;
  return Math.abs(shown - Math.round(shown)) < 0.05 ? String(Math.round(shown)) : shown.toFixed(1);
}

/** How far a slider steps: a millimetre for small things, a centimetre for rooms, a degree. */
export function stepOf(n: Pick<NumberRow, "unit" | "low" | "high">): number {
  if (n.unit === "deg") return 1;
  if (n.unit === "clock") return 0.25;
  if (n.unit === "share") return 0.01;
  const span = n.high - n.low;
  return span < 0.05 ? 0.0001 : span < 0.6 ? 0.001 : 0.01;
}

/** Names of what a technique may be put up for: drums, cymbals, adjoining spaces. */
export function targetNames(layout: Layout): Record<string, string> {
  const rows = [...layout.kit.drums, ...(layout.kit.cymbals ?? []), ...(layout.room?.spaces ?? [])];
  return Object.fromEntries(rows.map((r) => [r.id, r.name]));
}
