/** The readings in the order of the walk, by pair and mic, with what came of each. */
import type { AskRow } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useMe } from "../../parts/me";

const STATE = {
  "to read": ["to read", "text-soft"],
  good: ["good", "text-ring"],
  off: ["off", "text-latetext"],
  again: ["once more", "text-hollow"],
  skipped: ["not reached", "text-soft"],
} as const;

interface Props {
  asks: readonly AskRow[];
  chosen: number | null;
  /** Dealt with here, and not counted by an answer yet. */
  here: ReadonlySet<number>;
  onChoose: (n: number) => void;
}

export function AskList({ asks, chosen, here, onChoose }: Props) {
  return (
    <ol aria-label="Readings" className="text-[0.9rem]">
      {asks.map((ask, n) => (
        <li key={`${ask.mic} ${ask.to ?? "ground"}`}>
          {asks[n - 1]?.unit !== ask.unit && (
            <p className="mt-2 text-[0.8rem] font-semibold text-soft">{ask.unit}</p>
          )}
          <Row ask={ask} on={chosen === n} here={here.has(n)} onChoose={() => onChoose(n)} />
        </li>
      ))}
    </ol>
  );
}

interface RowProps {
  ask: AskRow;
  on: boolean;
  here: boolean;
  onChoose: () => void;
}

function Row({ ask, on, here, onChoose }: RowProps) {
  const ruler: Ruler = useMe();
  const [words, colour] = here ? (["kept", "text-soft"] as const) : STATE[ask.state];
  const to = ask.to ?? "ground";
  return (
    <button
      type="button"
      aria-current={on ? "step" : undefined}
      data-ask={`${ask.mic} ${to}`}
      data-state={here ? "kept" : ask.state}
      className={`grid w-full grid-cols-[minmax(0,1fr)_auto_auto] gap-3 rounded-md px-1.5 py-1 text-left pointer-coarse:min-h-11 pointer-coarse:items-center ${on ? "bg-card font-semibold outline outline-ink" : "hover:bg-card"}`}
      onClick={onChoose}
    >
      <span className="truncate">
        <b>{ask.mic}</b> to {ask.to === null ? "the floor" : ask.to_words.split(",")[0]}
      </span>
      <span className="num">{ask.read_m === null ? "" : lengthWithUnit(ask.read_m, ruler)}</span>
      <span className={`w-20 text-right ${colour}`}>{words}</span>
    </button>
  );
}
