/** Pairs: what arrives, every pair in one grid, and one pair with what to do about it. */
import { useCallback, useEffect, useState } from "react";
import type { Remedy, Verdict } from "../../api/types";
import { withMic } from "../../core/edits";
import { type MicOrder, micOrder, passes } from "../../core/pairList";
import { firstDrum } from "../../core/words";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { PairGrid } from "../../parts/PairGrid";
import { Pulses } from "../../parts/Pulses";
import { Segmented } from "../../parts/Segmented";
import { VerdictSieve } from "../../parts/VerdictCounts";
import { BestFlips } from "./BestFlips";
import { Limits } from "./Limits";
import { OneByOne } from "./OneByOne";
import { PairDetail } from "./PairDetail";
import { PairTable } from "./PairTable";
import { Picture } from "./Picture";
import { Trial } from "./Trial";

type View = "pulses" | "one by one" | "flips" | "picture";

const VIEWS = [
  ["pulses", "First half-waves"],
  ["one by one", "One by one"],
  ["flips", "Best flips"],
  ["picture", "Picture"],
] as const;

export function Pairs() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const [view, setView] = useState<View>("pulses");
  const [drum, setDrum] = useState(firstDrum(doc, "snare").id);
  const [whole, setWhole] = useState(true);
  const [look, setLook] = useState<"grid" | "table">("grid");
  const [order, setOrder] = useState<MicOrder>("as laid out");
  const [verdicts, setVerdicts] = useState<Verdict[]>([]);
  const [words, setWords] = useState("");
  const { tried, onTry, onTake } = useTrial();
  const focus = board?.focus;
  if (!board) return <p className="p-6 text-soft">Computing…</p>;
  if (doc.mics.length < 2)
    return <p className="p-6">A pair needs two mics. Add them on Place, then come back.</p>;
  const open = (a: string, b: string, source: string | null = null) => {
    onTry(null);
    editor.open({ anchor: a, mover: b, source });
  };
  const left = (a: string, b: string) => {
    const own = board.decisions.filter((d) => (d.a === a && d.b === b) || (d.a === b && d.b === a));
    if (!own.length) return null;
    return own.some((d) => d.stale) ? "stale" : "kept";
  };
  const sought = (a: string, b: string, verdict: Verdict) =>
    passes(doc, { a, b, verdict }, { verdicts, words });
  const many = board.mic_ids.length > 20;
  const source = whole ? null : drum;
  return (
    <div
      className={`grid h-full grid-rows-[minmax(0,1fr)_auto] ${many ? "grid-cols-[minmax(0,1fr)_minmax(600px,1.15fr)]" : "grid-cols-[minmax(0,1.5fr)_minmax(360px,1fr)]"}`}
    >
      <h1 className="sr-only">Pairs of mics</h1>
      {tried ? (
        <Trial remedy={tried} onBack={() => onTry(null)} onTake={() => onTake(tried)} />
      ) : (
        <section className="overflow-y-auto p-4" aria-label={VIEWS.find((v) => v[0] === view)?.[1]}>
          <header className="mb-2 flex flex-wrap items-center gap-3">
            <Segmented label="Look at" value={view} options={VIEWS} onTake={setView} />
            {view === "pulses" && (
              <Segmented
                small
                label="Drum"
                value={drum}
                options={board.sources.map((s) => [s.id, s.name] as const)}
                onTake={setDrum}
              />
            )}
          </header>
          {view === "pulses" && <Arrivals drum={drum} />}
          {view === "one by one" && <OneByOne />}
          {view === "flips" && <BestFlips />}
          {view === "picture" && <Picture />}
        </section>
      )}
      <section className="overflow-auto border-l border-hair p-4" aria-label="Every pair">
        <header className="mb-1.5 flex flex-wrap items-center gap-2">
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
        <div className="mb-2 flex flex-wrap items-center gap-2">
          <input
            type="search"
            className="field w-36 py-0.5 text-[0.82rem]"
            placeholder="Find a mic or drum"
            aria-label="Find a mic or drum"
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          {look === "grid" && (
            <select
              className="field py-0.5 text-[0.82rem]"
              aria-label="Order of the mics"
              value={order}
              onChange={(e) => setOrder(e.target.value as MicOrder)}
            >
              <option value="as laid out">as laid out</option>
              <option value="by drum">by drum</option>
              <option value="worst first">worst first</option>
            </select>
          )}
          <VerdictSieve counts={board.counts} chosen={verdicts} onChoose={setVerdicts} />
        </div>
        {look === "grid" ? (
          <PairGrid
            layout={doc}
            board={board}
            order={micOrder(doc, board, order)}
            source={source}
            open={focus ? { a: focus.a, b: focus.b } : null}
            left={left}
            sought={sought}
            onOpen={(a, b) => open(...named(board.mic_ids, a, b), source)}
          />
        ) : (
          <PairTable source={source} sought={sought} onOpen={open} />
        )}
        <p className="mt-1.5 flex flex-wrap gap-x-3 text-[0.82rem] text-soft">
          {whole
            ? "Worst over the drums each pair is put up for."
            : "For the drum chosen on the left."}
          <Limits />
        </p>
      </section>
      <div
        className={`col-span-2 overflow-hidden border-t border-hair bg-panel ${focus ? "h-[max(38vh,296px)]" : ""}`}
      >
        {focus ? (
          <PairDetail
            key={`${focus.a} ${focus.b}`}
            focus={focus}
            tried={tried}
            onTry={onTry}
            onTake={onTake}
          />
        ) : (
          <p className="px-5 py-2 text-soft">Choose a pair in the grid to see it in full.</p>
        )}
      </div>
    </div>
  );
}

/** A pair in the order of the layout, so that both ways round it open the same. */
function named(ids: readonly string[], a: string, b: string): [string, string] {
  return ids.indexOf(a) <= ids.indexOf(b) ? [a, b] : [b, a];
}

/** A remedy on trial: shown everywhere, saved nowhere; leaving the step puts all back. */
function useTrial() {
  const editor = useEditor();
  const still = useEditorPart((s) => s.still);
  const [trial, setTrial] = useState<{ remedy: Remedy; on: object } | null>(null);
  const tried = trial && trial.on === still ? trial.remedy : null;
  const made = useCallback(
    (r: Remedy) => r.mics.reduce((doc, mic) => withMic(doc, mic.id, mic), editor.snapshot().still),
    [editor],
  );
  const onTry = useCallback(
    (r: Remedy | null) => {
      const { still: now, doc } = editor.snapshot();
      setTrial(r && { remedy: r, on: now });
      if (r) editor.preview(made(r));
      else if (doc !== now) editor.preview(now);
    },
    [editor, made],
  );
  const onTake = useCallback(
    (r: Remedy) => {
      setTrial(null);
      editor.commit(made(r), r.words.replace(/\.$/, "").slice(0, 120));
    },
    [editor, made],
  );
  useEffect(
    () => () => {
      const { still: now, doc } = editor.snapshot();
      if (doc !== now) editor.preview(now);
    },
    [editor],
  );
  return { tried, onTry, onTake };
}

function Arrivals({ drum }: { drum: string }) {
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const lit = useLit();
  if (!board) return null;
  const glow = [lit.hovered, board.focus?.a, board.focus?.b].filter((x): x is string => Boolean(x));
  return (
    <>
      <Pulses layout={doc} board={board} source={drum} lit={glow} onHover={lit.hover} />
      <p className="mt-1 max-w-xl text-[0.88rem] text-soft">
        Each pulse stands where the drum arrives and points the way the capsule is first pushed. A
        dashed pulse is a guess: the mic sits near the plane of the head, in a null, or where a
        reflection may lead, so listen before you trust it.
      </p>
    </>
  );
}
