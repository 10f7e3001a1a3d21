/** Of a simulated take: what was set up wrong, for whoever wants to know. */
import type { Take } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useMe } from "../../parts/me";

interface Wrong {
  moved?: { mic: string; by_m: [number, number, number] }[];
  late?: { channel: string; samples: number }[];
  inverted?: string[];
  hum?: string[];
  clipped?: string[];
  dead?: string[];
  swapped?: [string, string][];
  shifted?: string[][];
  doubled?: [string, string][];
}

/** Every fault as a sentence. */
export function wrongWords(wrong: Wrong, ruler: Ruler): string[] {
  const said = (names: string[] | undefined, what: string) =>
    (names ?? []).map((n) => `${n} ${what}.`);
  return [
    ...(wrong.moved ?? []).map(({ mic, by_m: [x, y, z] }) => {
      const way = (v: number, plus: string, minus: string) =>
        `${lengthWithUnit(Math.abs(v), ruler)} ${v < 0 ? minus : plus}`;
      return `${mic} stands ${way(x, "right", "left")}, ${way(y, "forward", "back")}, ${way(z, "up", "down")} of its plan.`;
    }),
    ...said(wrong.inverted, "is turned over"),
    ...(wrong.late ?? []).map((l) => `${l.channel} is ${l.samples} samples late.`),
    ...(wrong.swapped ?? []).map(([a, b]) => `${a} and ${b} are swapped.`),
    ...(wrong.shifted ?? []).map(
      (row) =>
        `From ${row[0]} to ${row.at(-1)} all are one socket on: ${row.at(-1)} is not recorded.`,
    ),
    ...(wrong.doubled ?? []).map(([a, b]) => `${b} holds what ${a} does.`),
    ...said(wrong.hum, "hums"),
    ...said(wrong.clipped, "clips"),
    ...said(wrong.dead, "holds nothing"),
  ];
}

export function Truth({ take }: { take: Take }) {
  const ruler: Ruler = useMe();
  if (!take.truth) return null;
  const told = wrongWords((take.truth.wrong ?? {}) as Wrong, ruler);
  return (
    <details className="text-[0.9rem]">
      <summary className="font-semibold text-snare">What was set up wrong</summary>
      <ul>
        {told.map((words) => (
          <li key={words}>{words}</li>
        ))}
        {!told.length && <li>Nothing: it is as planned.</li>}
      </ul>
    </details>
  );
}
