/** Stretches of a take, samples on its own time. */
export interface Span {
  begin: number;
  count: number;
}

const CHUNK_S = 4;

/** Everything from a sample on, in parts that can be fetched one by one. */
export function chunks(from: number, end: number, rate: number): Span[] {
  const size = CHUNK_S * rate;
  const out: Span[] = [];
  for (let begin = from; begin < end; begin += size)
    out.push({ begin, count: Math.min(size, end - begin) });
  return out;
}
