/** Mics added one at a time, in the order of a school or one's own: what each newcomer does. */
import { ArrowDown, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { StepRow } from "../../api/types";
import { micOf } from "../../core/edits";
import { dbText } from "../../core/units";
import { sourceName } from "../../core/words";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useTake } from "../../parts/hands";
import { MicTag } from "../../parts/MicTag";
import { useWorklist } from "../../parts/worklist";
import { useSteps } from "./data";

type Order = "own" | "overheads" | "kick";

export function OneByOne() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const [order, setOrder] = useState<Order>(doc.order?.length ? "own" : firstOf(doc.brief?.first));
  const found = useSteps(order === "own" ? null : order);
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  const steps = found.data;
  if (!steps) return <p className="text-soft">Adding them up…</p>;
  const swap = (i: number, by: number) => {
    const next = steps.map((s) => s.mic);
    const [one, two] = [next[i], next[i + by]] as [string, string];
    next[i] = two;
    next[i + by] = one;
    setOrder("own");
    const what = `Put ${one} ${by < 0 ? "before" : "after"} ${two}`;
    editor.commit({ ...editor.snapshot().still, order: next }, what);
  };
  return (
    <div className={found.isPlaceholderData ? "opacity-60" : undefined}>
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <Segmented
          small
          label="Order"
          value={order}
          options={[
            ["overheads", "Overheads first"],
            ["kick", "Kick first"],
            ["own", "My order"],
          ]}
          onTake={setOrder}
        />
        <span className="text-[0.82rem] text-soft">
          dB of body each newcomer adds to the sum so far; below it, turned over.
        </span>
      </div>
      <div className="narrow:overflow-x-auto">
        <Steps steps={steps} onSwap={swap} />
      </div>
    </div>
  );
}

type Swap = (i: number, by: number) => void;

function Steps({ steps, onSwap }: { steps: StepRow[]; onSwap: Swap }) {
  const doc = useEditorPart((s) => s.still);
  return (
    <table className="w-full text-[0.84rem] narrow:min-w-[36rem]">
      <caption className="sr-only">Mics added one by one</caption>
      <thead className="text-left text-soft">
        <tr>
          <th scope="col">
            <span className="sr-only">Move</span>
          </th>
          <th scope="col" className="font-semibold">
            Mic
          </th>
          {steps[0]?.drums.map((d) => (
            <th key={d.source} scope="col" className="pr-2 text-right font-semibold">
              {sourceName(doc, d.source)}
            </th>
          ))}
          <th scope="col" className="pl-3 font-semibold">
            What it does
          </th>
        </tr>
      </thead>
      <tbody>
        {steps.map((s, i) => (
          <OneStep key={s.mic} step={s} at={i} last={i === steps.length - 1} onSwap={onSwap} />
        ))}
      </tbody>
    </table>
  );
}

function OneStep(props: { step: StepRow; at: number; last: boolean; onSwap: Swap }) {
  const { step: s, at, last, onSwap } = props;
  const doc = useEditorPart((e) => e.still);
  const take = useTake();
  const listed = useListed(s.mic);
  const mic = micOf(doc, s.mic);
  if (!mic) return null;
  return (
    <tr className="border-t border-hair align-top" data-step={s.mic}>
      <td className="py-1 pr-1 whitespace-nowrap">
        <Arrow label={`${s.mic} earlier`} off={at === 0} onPress={() => onSwap(at, -1)} up />
        <Arrow label={`${s.mic} later`} off={last} onPress={() => onSwap(at, 1)} />
      </td>
      <th scope="row" className="py-1 pr-2 text-left">
        <MicTag mic={mic} layout={doc} />
      </th>
      {s.drums.map((d) => (
        <OnDrum key={d.source} drum={d} />
      ))}
      <td className="py-1 pl-3">
        {s.words}{" "}
        {s.flip && !listed && (
          <span className="text-soft">With every mic up, the list leaves it. </span>
        )}
        {s.flip && (
          <button
            type="button"
            className="font-semibold text-snare underline"
            onClick={() => void take({ do: "flip", mics: [s.mic] })}
          >
            Flip {s.mic}
          </button>
        )}
      </td>
    </tr>
  );
}

/** Whether the list to do flips this mic too; true while nobody knows. */
function useListed(mic: string): boolean {
  const lines = useWorklist().data?.lines;
  return !lines || lines.some((l) => l.kind === "flip" && l.of.includes(mic));
}

function OnDrum({ drum: d }: { drum: StepRow["drums"][number] }) {
  return (
    <td className="num py-1 pr-2 text-right leading-tight">
      {d.wired_db === null ? (
        <span className="text-soft">·</span>
      ) : (
        <>
          <span className={`block ${tone(d.wired_db, d.heard)}`}>{dbText(d.wired_db)}</span>
          <span className="block text-[0.75rem] text-soft">{dbText(d.flipped_db ?? 0)}</span>
        </>
      )}
    </td>
  );
}

const firstOf = (first: string | undefined): Order => (first === "close" ? "kick" : "overheads");

const tone = (db: number, heard: boolean) =>
  heard ? `font-bold ${db > 0 ? "text-ring" : "text-hollow"}` : "";

function Arrow(props: { label: string; off: boolean; onPress: () => void; up?: boolean }) {
  const Shape = props.up ? ArrowUp : ArrowDown;
  return (
    <button
      type="button"
      aria-label={props.label}
      disabled={props.off}
      onClick={props.onPress}
      className="rounded p-0.5 text-soft hover:text-ink disabled:opacity-30"
    >
      <Shape size={14} />
    </button>
  );
}
