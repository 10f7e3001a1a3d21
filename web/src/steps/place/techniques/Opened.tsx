/** A technique in use, as one thing: its numbers, what it keeps equal, and the way back to them. */
import { useEffect, useMemo, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Layout, Standing, Technique, Took } from "../../../api/types";
import { Latest } from "../../../core/latest";
import { targetNames } from "../../../core/techniques";
import { lengthWithUnit } from "../../../core/units";
import { useEditor, useEditorPart, useLit } from "../../../parts/editing";
import { useMe } from "../../../parts/me";
import { useToast } from "../../../parts/toast";
import { About, Promises } from "./About";
import { NumberFields } from "./NumberFields";

interface Ask {
  layout: Layout;
  taken: string;
  numbers: Record<string, number>;
  done: boolean;
}

interface Props {
  row: Standing;
  technique: Technique | undefined;
  onBack: () => void;
  onWhatIf: () => void;
}

export function Opened({ row, technique, onBack, onWhatIf }: Props) {
  const editor = useEditor();
  const ruler = useMe();
  const lit = useLit();
  const say = useToast();
  const doc = useEditorPart((s) => s.doc);
  // What the hand asked for and the server has not answered yet: a slider must not fall back.
  const [wanted, setWanted] = useState<Record<string, number>>({});
  const shown = doc.techniques?.find((t) => t.id === row.id)?.numbers ?? row.numbers;
  const hands = useMemo(
    () =>
      new Latest<Ask, Took>(
        ({ layout, taken, numbers }) =>
          exactly<Took>(api.POST("/api/techniques/change", { body: { layout, taken, numbers } })),
        (answer, { numbers, done }) => {
          if (done) editor.commitSoon(answer.layout, answer.what);
          else editor.preview(answer.layout);
          if (done)
            setWanted((old) =>
              Object.fromEntries(Object.entries(old).filter(([id, v]) => numbers[id] !== v)),
            );
        },
        (error) => {
          setWanted({});
          editor.preview(editor.snapshot().still);
          say(error.message);
        },
      ),
    [editor, say],
  );
  useEffect(
    () => () => {
      hands.callOff();
      const { doc: now, still } = editor.snapshot();
      if (now !== still) editor.preview(still);
    },
    [editor, hands],
  );
  const change = (numbers: Record<string, number>, done: boolean) => {
    setWanted((old) => ({ ...old, ...numbers }));
    hands.want({ layout: editor.snapshot().still, taken: row.id, numbers, done });
  };
  const takeAway = async () => {
    try {
      const gone = await exactly<Took>(
        api.POST("/api/techniques/drop", {
          body: { layout: editor.snapshot().still, taken: row.id },
        }),
      );
      lit.select(null);
      onBack();
      editor.commit(gone.layout, gone.what);
      say(`${row.name} is taken away`, { label: "Undo", run: () => void editor.step("undo") });
    } catch (error) {
      say((error as Error).message);
    }
  };
  return (
    <div className="space-y-3" data-opened={row.id}>
      <header>
        <p className="text-[0.8rem] text-soft">
          In use{row.target ? `, ${targetNames(doc)[row.target] ?? row.target}` : ""}:{" "}
          {row.mics.join(", ")}
        </p>
        <h2 className="text-[1.05rem]">{row.name}</h2>
      </header>
      {row.off.length > 0 && (
        <div className="rounded-md border border-late p-2 text-[0.88rem]" data-off>
          <p>
            {row.off.map((o) => `${o.mic} ${lengthWithUnit(o.moved_m, ruler)}`).join(", ")} off its
            numbers: the mic or the kit was moved.
          </p>
          <button type="button" className="btn mt-1.5 w-full" onClick={() => change({}, true)}>
            Back on its numbers
          </button>
        </div>
      )}
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
      {technique && <About technique={technique} />}
    </div>
  );
}
