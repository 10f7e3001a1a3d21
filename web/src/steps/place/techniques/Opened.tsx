/** A technique in use, as one thing: its numbers, what it keeps equal, and the way back to them. */
import type { Standing, Technique } from "../../../api/types";
import { targetNames } from "../../../core/techniques";
import { lengthWithUnit } from "../../../core/units";
import { useEditorPart, useLit } from "../../../parts/editing";
import { useStep, useTake } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import { useToast } from "../../../parts/toast";
import { About, Promises } from "./About";
import { NumberFields } from "./NumberFields";
import { useNumbers } from "./useNumbers";

interface Props {
  row: Standing;
  technique: Technique | undefined;
  onBack: () => void;
  onWhatIf: () => void;
}

export function Opened({ row, technique, onBack, onWhatIf }: Props) {
  const ruler = useMe();
  const doc = useEditorPart((s) => s.doc);
  const { wanted, change } = useNumbers(row);
  const shown = doc.techniques?.find((t) => t.id === row.id)?.numbers ?? row.numbers;
  return (
    <div className="space-y-3" data-opened={row.id}>
      <header>
        <p className="text-[0.8rem] text-soft">
          In use{row.target ? `, ${targetNames(doc)[row.target] ?? row.target}` : ""}:{" "}
          {row.mics.join(", ")}
        </p>
        <h2 className="text-[1.05rem]">{row.name}</h2>
      </header>
      <OffNumbers row={row} onBack={() => change({}, true)} />
      {row.notes.map((n) => (
        <p key={n} className="text-[0.85rem] text-latetext">
          {n}
        </p>
      ))}
      {technique && (
        <NumberFields
          rows={technique.numbers}
          values={{ ...shown, ...wanted }}
          ruler={ruler}
          onTake={(id, value, done) => change({ [id]: value }, done)}
        />
      )}
      <Promises rows={row.equal} ruler={ruler} />
      <Buttons row={row} onBack={onBack} onWhatIf={onWhatIf} />
      {technique && <About technique={technique} />}
    </div>
  );
}

function OffNumbers({ row, onBack }: { row: Standing; onBack: () => void }) {
  const ruler = useMe();
  if (!row.off.length) return null;
  return (
    <div className="rounded-md border border-late p-2 text-[0.88rem]" data-off>
      <p>
        {row.off.map((o) => `${o.mic} ${lengthWithUnit(o.moved_m, ruler)}`).join(", ")} off its
        numbers: the mic or the kit was moved.
      </p>
      <button type="button" className="btn mt-1.5 w-full" onClick={onBack}>
        Back on its numbers
      </button>
    </div>
  );
}

function Buttons({ row, onBack, onWhatIf }: Omit<Props, "technique">) {
  const lit = useLit();
  const take = useTake();
  const step = useStep();
  const say = useToast();
  const takeAway = async () => {
    if (!(await take({ do: "remove-mics", mics: row.mics }))) return;
    lit.select(null);
    onBack();
    say(`${row.name} is taken away`, { label: "Undo", run: () => step("undo") });
  };
  return (
    <div className="flex flex-wrap gap-2">
      <button type="button" className="btn-main flex-1" onClick={onWhatIf}>
        What if
      </button>
      <button type="button" className="btn" onClick={onBack}>
        Back to the list
      </button>
      <button type="button" className="btn w-full" onClick={() => void takeAway()}>
        Take it away
      </button>
    </div>
  );
}
