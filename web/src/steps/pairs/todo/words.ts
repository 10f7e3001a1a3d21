/** What a line gives and costs, in a few words. */
import type { Layout, Line, Worklist } from "../../../api/types";
import { dbText } from "../../../core/units";
import { sourceName, spoken } from "../../../core/words";

type Gain = Worklist["gains"][number];

/** The line of the list that makes a pair better, by number from 0; -1 where there is none. */
export function lineFor(lines: readonly Line[], a: string, b: string): number {
  const own = new Set([a, b]);
  return lines.findIndex((l) => l.better.some((p) => own.has(p.a) && own.has(p.b)));
}

/** "Body: snare +6.9, kick +2.8 dB. Comb: snare 2.0 dB less." */
export function gainsText(gains: Gain[], doc: Layout): string {
  const of = (pick: (g: Gain) => number, told: (db: number) => string) =>
    gains
      .filter((g) => Math.abs(pick(g)) >= LEAST_DB)
      .map((g) => `${spoken(sourceName(doc, g.source))} ${told(pick(g))}`)
      .join(", ");
  const body = of((g) => g.body_db, dbText);
  const comb = of(
    (g) => g.comb_db,
    (db) => dbText(-db),
  );
  return [body && `Body: ${body} dB.`, comb && `Comb: ${comb} dB.`].filter(Boolean).join(" ");
}

const LEAST_DB = 0.5;

const count = (n: number) => `${n} pair${n === 1 ? "" : "s"}`;
const name = (p: { a: string; b: string }) => `${p.a} ${p.b}`;

/** What else changes: pairs judged better, and worse, and until which later line. */
export function sidesText({ better, worse }: Line, later: Numbered[]): string {
  const cured = (p: Line["worse"][number]) =>
    later.findIndex((l) => l.better.some((x) => name(x) === name(p)));
  const until = Math.max(...worse.map(cured));
  const all = worse.every((p) => cured(p) >= 0);
  const said = [
    better.length > 0 && `${count(better.length)} better`,
    worse.length > 0 &&
      `${count(worse.length)} worse${all ? `, until line ${later[until]?.number}` : ""}`,
  ].filter(Boolean);
  return said.length ? `${said.join(", ")}.` : "";
}

export type Numbered = Line & { number: number };

/** "4 min; the drummer stops". */
export function costText({ cost }: Pick<Line, "cost">): string {
  const minutes = cost.minutes < 1 ? "Under a minute" : `${Math.round(cost.minutes)} min`;
  return `${minutes}; ${cost.words}`;
}
