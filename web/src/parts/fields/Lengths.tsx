/** Several lengths of one thing side by side, each typed in the chosen ruler. */
import { type Ruler, threeAcross } from "../../core/units";
import { useMe } from "../me";
import { LengthField } from "./LengthField";

/** What it is called, how long it is now, and what to do with another. */
export type LengthRow = readonly [label: string, metres: number, onTake: (m: number) => void];

export function LengthFields({ rows }: { rows: readonly LengthRow[] }) {
  const ruler: Ruler = useMe();
  return rows.map(([label, metres, onTake]) => (
    <LengthField key={label} label={label} metres={metres} ruler={ruler} onTake={onTake} />
  ));
}

interface Props {
  rows: readonly LengthRow[];
  /** Two across, or three where the ruler's words are short enough. */
  across?: 2 | 3;
}

export function Lengths({ rows, across = 3 }: Props) {
  const ruler: Ruler = useMe();
  return (
    <div className={`grid ${across === 2 ? "grid-cols-2" : threeAcross(ruler)} gap-2`}>
      <LengthFields rows={rows} />
    </div>
  );
}
