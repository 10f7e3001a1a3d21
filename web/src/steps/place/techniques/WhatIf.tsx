/** What if: one number of a technique on a slider, with what would be heard drawn over it. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Layout, Standing, Sweep, Technique } from "../../../api/types";
import { nearest } from "../../../core/curves";
import { swept } from "../../../core/edits";
import { numberText } from "../../../core/techniques";
import { Sweeps } from "../../../parts/curves/Sweeps";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { Slide as Slider } from "../../../parts/fields/Slide";
import { useTake } from "../../../parts/hands";
import { useMe } from "../../../parts/me";

function useSweep(taken: string, number: string) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["what-if", still, taken, number],
    queryFn: ({ signal }) =>
      exactly<Sweep>(
        api.POST("/api/techniques/what-if", {
          signal,
          body: { layout: still, taken, number, points: 41 },
        }),
      ),
    enabled: Boolean(number),
    placeholderData: (old, query) => (query?.queryKey[3] === number ? old : undefined),
    gcTime: 5_000,
  });
}

export function WhatIf({ row, technique }: { row: Standing; technique: Technique }) {
  const [number, setNumber] = useState(technique.numbers[0]?.id ?? "");
  const sweep = useSweep(row.id, number);
  if (!technique.numbers.length)
    return <p className="px-4 pb-4 text-soft">{row.name} has no number to slide.</p>;
  return (
    <div className="px-4 pb-2" data-whatif={row.id}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="text-[0.95rem]">What if: {row.name}</h2>
        <Pick
          label="Slide"
          hideLabel
          value={number}
          options={technique.numbers.map((n) => n.id)}
          names={Object.fromEntries(technique.numbers.map((n) => [n.id, n.label]))}
          onTake={setNumber}
        />
        {sweep.error && (
          <p role="alert" className="text-[0.85rem] text-hollow">
            {sweep.error.message}
          </p>
        )}
        {sweep.data && <Slide key={number} sweep={sweep.data} row={row} />}
      </div>
      {sweep.isPending && <p className="py-6 text-soft">Working it out…</p>}
    </div>
  );
}

/**
 * Where the slider stands: at the value that is kept, under the hand, or where it was let go of
 * until the curves are drawn anew or the layout becomes another, by an undo.
 */
function useSlide(sweep: Sweep, row: Standing) {
  const editor = useEditor();
  const take = useTake();
  const still = useEditorPart((s) => s.still);
  const [held, setHeld] = useState<{ at: number; of: Layout } | null>(null);
  const now = nearest(sweep.values, sweep.now);
  const at = Math.min(held?.of === still ? held.at : now, sweep.values.length - 1);
  const valueAt = (i: number) => sweep.values[i] ?? sweep.now;
  useEffect(
    () => () => {
      const { doc, still } = editor.snapshot();
      if (doc !== still) editor.preview(still);
    },
    [editor],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: new curves, not a new value, set it free
  useEffect(() => setHeld(null), [sweep]);
  const show = (i: number) => {
    const kept = editor.snapshot().still;
    setHeld({ at: i, of: kept });
    editor.preview(swept(kept, row.id, sweep.number, valueAt(i), sweep.mics[i] ?? []));
  };
  const stop = async (i: number) => {
    setHeld({ at: i, of: editor.snapshot().still });
    if (i === now) return editor.preview(editor.snapshot().still);
    await take({ do: "numbers", taken: row.id, numbers: { [sweep.number]: valueAt(i) } });
    setHeld({ at: i, of: editor.snapshot().still });
  };
  return { at, now, value: valueAt(at), show, stop };
}

function Slide({ sweep, row }: { sweep: Sweep; row: Standing }) {
  const ruler = useMe();
  const { at, now, value, show, stop } = useSlide(sweep, row);
  return (
    <>
      <Slider
        className="w-56"
        label={`What if, ${sweep.label}`}
        text={numberText(value, sweep, ruler)}
        low={0}
        high={sweep.values.length - 1}
        step={1}
        value={at}
        onShow={show}
        onTake={(i) => void stop(i)}
      />
      <output className="num min-w-20 font-bold" data-whatif-value>
        {numberText(value, sweep, ruler)}
      </output>
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.8rem]"
        disabled={sweep.best === now}
        onClick={() => void stop(sweep.best)}
      >
        To the marked value
      </button>
      <p className="w-full text-[0.83rem] text-soft">
        {sweep.blocked[at] ? <span className="text-hollow">{sweep.blocked[at]}</span> : sweep.words}
      </p>
      <Sweeps sweep={sweep} at={at} ruler={ruler} />
    </>
  );
}
