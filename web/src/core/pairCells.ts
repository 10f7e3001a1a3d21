/** What stands in the cells of the grid: pairs of mics, or of units, by both names. */
import type { Board, Verdict } from "../api/types";
import { GRAVEST } from "./pairList";

export interface Cell {
  verdict: Verdict;
  drum: string;
  tips: Verdict | null;
}

export interface UnitCell extends Cell {
  /** The pair of mics that is worst, and how many want something. */
  a: string;
  b: string;
  marked: number;
}

export type Unit = Board["units"][number];

/** Every pair of mics on a source, or on its worst. */
function* pairsOf(board: Board, source: string | null) {
  const k = source ? board.sources.findIndex((s) => s.id === source) : -1;
  const number = new Map(board.sources.map((s, i) => [s.id, i]));
  const tips = new Map(board.tips.map((t) => [`${t.pair} ${t.source}`, t.verdict]));
  for (const [i, a] of board.pair_a.entries()) {
    const b = board.pair_b[i] as string;
    const drum = k >= 0 ? (source as string) : (board.worst_source[i] as string);
    const at = k >= 0 ? k : (number.get(drum) ?? 0);
    const verdict = (k >= 0 ? board.verdict[i]?.[k] : board.worst[i]) as Verdict;
    yield { a, b, verdict, drum, tips: tips.get(`${i} ${at}`) ?? null };
  }
}

/** The cells by both names of a pair. */
export function cellsOf(board: Board, source: string | null): Map<string, Cell> {
  const cells = new Map<string, Cell>();
  for (const { a, b, ...cell } of pairsOf(board, source)) {
    cells.set(`${a} ${b}`, cell);
    cells.set(`${b} ${a}`, cell);
  }
  return cells;
}

const graver = (a: Verdict, b: Verdict) => GRAVEST.indexOf(a) < GRAVEST.indexOf(b);

/** Of two units the worst of their pairs, by both names; of one alone what is among its own mics. */
export function unitCells(board: Board, source: string | null): Map<string, UnitCell> {
  const unit = new Map(board.units.flatMap((u) => u.mics.map((m) => [m, u.name] as const)));
  const cells = new Map<string, UnitCell>();
  for (const pair of pairsOf(board, source)) {
    const [one, two] = [unit.get(pair.a), unit.get(pair.b)];
    if (one === undefined || two === undefined) continue;
    const old = cells.get(`${one} ${two}`);
    const marked = (old?.marked ?? 0) + (graver(pair.verdict, "together") ? 1 : 0);
    const cell = { ...(old && !graver(pair.verdict, old.verdict) ? old : pair), marked };
    cells.set(`${one} ${two}`, cell);
    cells.set(`${two} ${one}`, cell);
  }
  return cells;
}
