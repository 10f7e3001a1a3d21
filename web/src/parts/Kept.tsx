/** Things a studio keeps under a name, rooms and kits: take one, keep this one, forget it. */
import { Pick } from "./fields/Pick";

interface Props {
  /** What the list is for. */
  label: string;
  names: readonly string[];
  onTake: (at: number) => void;
  /** What can be kept now, and what of it is kept. */
  keep?: { words: string; onKeep: () => void; busy?: boolean };
  forget?: { words: string; onForget: () => void };
}

export function Kept({ label, names, onTake, keep, forget }: Props) {
  return (
    <div className="space-y-2">
      <Pick
        label={label}
        value=""
        placeholder="choose …"
        options={names.map((_, i) => String(i))}
        names={Object.fromEntries(names.map((n, i) => [String(i), n]))}
        onTake={(v) => onTake(Number(v))}
      />
      {keep && (
        <button type="button" className="btn w-full" disabled={keep.busy} onClick={keep.onKeep}>
          {keep.words}
        </button>
      )}
      {forget && (
        <button type="button" className="btn w-full" onClick={forget.onForget}>
          {forget.words}
        </button>
      )}
    </div>
  );
}
