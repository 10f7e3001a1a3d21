/** What if: one number of a technique on a slider, with what would be heard drawn over it. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Layout, Standing, Sweep, Technique } from "../../../api/types";
import { nearest } from "../../../core/curves";
import { swept } from "../../../core/edits";
import { numberText } from "../../../core/techniques";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { useMe } from "../../../parts/me";
import { Curves } from "./Curves";

export function WhatIf({ row, technique }: { row: Standing; technique: Technique }) {
  const [number, setNumber] = useState(technique.numbers[0]?.id ?? "");
  const still = useEditorPart((s) => s.still);
  const sweep = useQuery({
    queryKey: ["what-if", still, row.id, number],
    queryFn: () =>
      exactly<Sweep>(
        api.POST("/api/techniques/what-if", {
          body: { layout: still, taken: row.id, number, points: 41 },
        }),
      ),
    enabled: Boolean(number),
    placeholderData: (old, query) => (query?.queryKey[3] === number ? old : undefined),
    gcTime: 5_000,
  });
  if (!technique.numbers.length)
    return <p className="px-4 pb-4 text-soft">{row.name} has no number to slide.</p>;
  return (
    <div className="px-4 pb-2" data-whatif={row.id}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="text-[0.95rem]">What if: {row.name}</h2>
        <label className="flex items-center gap-1.5 text-[0.85rem]">
          <span className="text-soft">Slide</span>
          <select className="field" value={number} onChange={(e) => setNumber(e.target.value)}>
            {technique.numbers.map((n) => (
              <option key={n.id} value={n.id}>
                {n.label}
              </option>
            ))}
          </select>
        </label>
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

function Slide({ sweep, row }: { sweep: Sweep; row: Standing }) {
  const editor = useEditor();
  const ruler = useMe();
  const still = useEditorPart((s) => s.still);
  const [held, setHeld] = useState<{ at: number; of: Layout } | null>(null);
  const last = sweep.values.length - 1;
  const now = nearest(sweep.values, sweep.now);
  const at = Math.min(held?.of === still ? held.at : now, last);
  const value = sweep.values[at] ?? sweep.now;
  const there = (i: number) =>
    swept(
      editor.snapshot().still,
      row.id,
      sweep.number,
      sweep.values[i] ?? sweep.now,
      sweep.mics[i] ?? [],
    );
  useEffect(
    () => () => {
      const { doc, still } = editor.snapshot();
      if (doc !== still) editor.preview(still);
    },
    [editor],
  );
  // Set while the hand moves the slider: a key let go of for something else, as Ctrl+Z is, must
  // not take the value again that was just undone.
  const moving = useRef(false);
  const show = (i: number) => {
    moving.current = true;
    setHeld({ at: i, of: still });
    editor.preview(there(i));
  };
  // Where it was let go of holds until the curves are drawn anew or the layout becomes another,
  // by an undo: the slider must not fall back, and must not stay behind.
  // biome-ignore lint/correctness/useExhaustiveDependencies: new curves, not a new value, set it free
  useEffect(() => setHeld(null), [sweep]);
  const letGo = (i: number) => {
    if (moving.current) stop(i);
  };
  const stop = (i: number) => {
    moving.current = false;
    if (i !== now) editor.commit(there(i), `${row.name}: ${sweep.label.toLowerCase()}`);
    else editor.preview(editor.snapshot().still);
    setHeld({ at: i, of: editor.snapshot().still });
  };
  return (
    <>
      <input
        type="range"
        className="w-56 accent-(--ring)"
        aria-label={`What if, ${sweep.label}`}
        aria-valuetext={numberText(value, sweep, ruler)}
        min={0}
        max={last}
        step={1}
        value={at}
        onChange={(e) => show(Number(e.target.value))}
        onPointerUp={(e) => letGo(Number(e.currentTarget.value))}
        onKeyUp={(e) => letGo(Number(e.currentTarget.value))}
      />
      <output className="num min-w-20 font-bold" data-whatif-value>
        {numberText(value, sweep, ruler)}
      </output>
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.8rem]"
        disabled={sweep.best === now}
        onClick={() => stop(sweep.best)}
      >
        To the marked value
      </button>
      <p className="w-full text-[0.83rem] text-soft">
        {sweep.blocked[at] ? <span className="text-hollow">{sweep.blocked[at]}</span> : sweep.words}
      </p>
      <Curves sweep={sweep} at={at} ruler={ruler} />
    </>
  );
}
