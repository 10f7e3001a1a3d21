/** What there is to play of a take, or of two held against each other. */
import type { Against, TakeHeard } from "../api/types";
import { chunks, type Span } from "./spans";
import type { Playing } from "./takePlayer";

export interface Program extends Playing {
  /** A drum, or everything. */
  what: string;
  name: string;
  /** How hard the least alike strokes are against each other, decibels; of two takes. */
  apart_db?: number | null;
}

export const WHOLE = "whole take";
/** Everything is heard from so long before the first stroke. */
const LEAD_S = 1;

const span = ([begin, count]: number[]): Span => ({ begin: begin ?? 0, count: count ?? 0 });

/** A drum's hits in a loop, or everything. */
export function programsOf({ loops, first, samples, rate_hz }: TakeHeard): Program[] {
  const from = Math.max(0, (first ?? 0) - LEAD_S * rate_hz);
  const parts = chunks(from, samples, rate_hz).map((s) => [s]);
  return [
    ...loops.map(({ source, name, spans }) => ({
      ...{ what: source, name, loop: true },
      parts: spans.map((s) => [span(s)]),
    })),
    { what: WHOLE, name: "Whole take", loop: false, parts },
  ];
}

/** The same of two takes, moment by moment. */
export function programsOfBoth({ loops, whole }: Against, rates: readonly number[]): Program[] {
  const drums = loops.map(({ source, name, first, second, apart_db }) => ({
    ...{ what: source, name, apart_db, loop: true },
    parts: first.map((s, n) => [span(s), span(second[n] ?? s)]),
  }));
  if (!whole) return drums;
  const [one = [], two = []] = whole.map((w, n) => {
    const { begin, count } = span(w);
    return chunks(begin, begin + count, rates[n] ?? 1);
  });
  const parts = one.flatMap((s, n) => (two[n] ? [[s, two[n]]] : []));
  return [...drums, { what: WHOLE, name: "Whole take", loop: false, parts }];
}
