/** Pairs: who hears a drum first, every pair in one grid, and one pair with what to do about it. */
import { useState } from "react";
import type { Verdict } from "../../api/types";
import { firstDrum } from "../../core/words";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { Mark } from "../../parts/Mark";
import { PairGrid } from "../../parts/PairGrid";
import { Pulses } from "../../parts/Pulses";
import { Segmented } from "../../parts/Segmented";
import { VerdictCounts } from "../../parts/VerdictCounts";
import { Limits } from "./Limits";
import { PairDetail } from "./PairDetail";
import { PairTable } from "./PairTable";

export function Pairs() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const lit = useLit();
  const [drum, setDrum] = useState(firstDrum(doc, "snare").id);
  const [whole, setWhole] = useState(true);
  const [look, setLook] = useState<"grid" | "table">("grid");
  const focus = board?.focus;
  if (!board) return <p className="p-6 text-soft">Computing…</p>;
  if (doc.mics.length < 2)
    return <p className="p-6">A pair needs two mics. Add them on Place, then come back.</p>;
  const open = (a: string, b: string, source: string | null = null) =>
    editor.open({ anchor: a, mover: b, source });
  const glow = [lit.hovered, focus?.a, focus?.b].filter((x): x is string => Boolean(x));
  const left = (a: string, b: string) =>
    doc.decisions.some((d) => (d.a === a && d.b === b) || (d.a === b && d.b === a));
  const worst = [...new Set(board.worst)] as Verdict[];
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.5fr)_minmax(360px,1fr)] grid-rows-[minmax(0,1fr)_auto]">
      <h1 className="sr-only">Pairs of mics</h1>
      <section className="overflow-y-auto p-4" aria-label="Who hears it first">
        <header className="mb-2 flex flex-wrap items-center gap-3">
          <h2 className="text-lg">Who hears it first</h2>
          <Segmented
            small
            label="Drum"
            value={drum}
            options={board.sources.map((s) => [s.id, s.name] as const)}
            onTake={setDrum}
          />
        </header>
        <Pulses layout={doc} board={board} source={drum} lit={glow} onHover={lit.hover} />
        <p className="mt-1 max-w-xl text-[0.88rem] text-soft">
          Each pulse stands where the drum arrives and points the way the capsule is first pushed. A
          dashed pulse is a guess: the mic sits near the plane of the head, so listen before you
          trust it.
        </p>
      </section>
      <section className="overflow-auto border-l border-hair p-4" aria-label="Every pair">
        <header className="mb-2 flex flex-wrap items-center gap-2">
          <h2 className="text-lg">Every pair</h2>
          <Segmented
            small
            label="Shown as"
            value={look}
            options={[
              ["grid", "Grid"],
              ["table", "Table"],
            ]}
            onTake={setLook}
          />
          <label className="ml-auto flex items-center gap-1.5 text-[0.85rem]">
            <input type="checkbox" checked={whole} onChange={(e) => setWhole(e.target.checked)} />
            worst drum
          </label>
        </header>
        {look === "grid" ? (
          <PairGrid
            layout={doc}
            board={board}
            source={whole ? null : drum}
            open={focus ? { a: focus.a, b: focus.b } : null}
            left={left}
            onOpen={(a, b) => open(a, b, whole ? null : drum)}
          />
        ) : (
          <PairTable board={board} source={whole ? null : drum} onOpen={open} />
        )}
        <div className="mt-3">
          <VerdictCounts counts={board.counts} />
        </div>
        <p className="mt-1.5 text-[0.82rem] text-soft">
          {whole
            ? "Worst over the drums each pair is put up for."
            : "For the drum chosen on the left."}{" "}
          {worst.includes("hollow") && (
            <span className="inline-flex items-center gap-1">
              Begin with <Mark verdict="hollow" size={11} /> hollow.
            </span>
          )}
        </p>
        <p className="mt-1 text-[0.85rem]">
          <Limits />
        </p>
      </section>
      <div className="col-span-2 border-t border-hair bg-panel">
        {focus ? (
          <PairDetail focus={focus} />
        ) : (
          <p className="p-5 text-soft">Choose a pair in the grid to see it in full.</p>
        )}
      </div>
    </div>
  );
}
