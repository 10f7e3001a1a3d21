/** Every pair in one grid or table: sifted by verdict, searched, in the order that helps. */
import { useMemo, useState } from "react";
import type { Board, Verdict } from "../../api/types";
import { heardBeside, heardMarks } from "../../core/heard";
import { type MicOrder, micOrder, passes } from "../../core/pairList";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { Segmented } from "../../parts/fields/Segmented";
import { Tick } from "../../parts/fields/Tick";
import { PairGrid } from "../../parts/grid/PairGrid";
import { UnitGrid } from "../../parts/grid/UnitGrid";
import { Later } from "../../parts/Later";
import { VerdictSieve } from "../../parts/VerdictCounts";
import { useLastHeard } from "./data";
import { Limits } from "./Limits";
import { PairTable } from "./PairTable";

const ORDERS: MicOrder[] = ["as laid out", "by drum", "worst first"];
type Look = "units" | "grid" | "table";

/** From more mics on, units are shown first. */
export const MANY = 16;

/** From more on, single mics want half of the screen. */
const WIDE = 20;

/** What is looked for among the pairs, and how they are shown. */
function useLookFor(board: Board | null) {
  const many = (board?.mic_ids.length ?? 0) > MANY;
  const [chosen, setLook] = useState<Look | null>(null);
  const look = chosen ?? (many ? "units" : "grid");
  /** The mics of two units that were opened; none is all. */
  const [inside, setInside] = useState<readonly string[] | null>(null);
  const [whole, setWhole] = useState(true);
  const [order, setOrder] = useState<MicOrder>("as laid out");
  const [verdicts, setVerdicts] = useState<Verdict[]>([]);
  const [words, setWords] = useState("");
  return {
    look,
    setLook: (to: Look) => {
      setInside(null);
      setLook(to);
    },
    inside,
    setInside,
    whole,
    setWhole,
    order,
    setOrder,
    verdicts,
    setVerdicts,
    words,
    setWords,
  };
}

type LookFor = ReturnType<typeof useLookFor>;

/** Left on purpose: with nothing changed since, or flagged. */
function leftOf(board: Board, a: string, b: string): "kept" | "stale" | null {
  const own = board.decisions.filter((d) => (d.a === a && d.b === b) || (d.a === b && d.b === a));
  if (!own.length) return null;
  return own.some((d) => d.stale) ? "stale" : "kept";
}

/** A pair in the order of the layout, so that both ways round it open the same. */
function named(ids: readonly string[], a: string, b: string): [string, string] {
  return ids.indexOf(a) <= ids.indexOf(b) ? [a, b] : [b, a];
}

export function EveryPair({ drum, onOpened }: { drum: string; onOpened: () => void }) {
  const board = useEditorPart((s) => s.board);
  const find = useLookFor(board);
  if (!board) return null;
  return (
    <section
      className="relative flex flex-col overflow-auto border-l border-hair p-4 narrow:border-l-0"
      aria-label="Every pair"
      data-wide={find.look === "grid" && board.mic_ids.length > WIDE ? true : undefined}
    >
      <header className="mb-1.5 flex flex-wrap items-center gap-2">
        <h2 className="text-lg">Every pair</h2>
        <span className="text-[0.83rem] text-soft" data-under>
          under {board.balance ?? "the usual balance"}
        </span>
        <Segmented
          small
          label="Shown as"
          value={find.look}
          options={[
            ["units", "Units"],
            ["grid", "Mics"],
            ["table", "Table"],
          ]}
          onTake={find.setLook}
        />
      </header>
      <Sieve find={find} board={board} />
      <Shown find={find} board={board} source={find.whole ? null : drum} onOpened={onOpened} />
      <p className="mt-1.5 flex flex-wrap gap-x-3 text-[0.82rem] text-soft">
        {find.whole
          ? "Worst over the drums each pair is put up for."
          : "For the drum chosen on the left."}
        <Later>
          <Limits />
          <Recorded />
        </Later>
      </p>
    </section>
  );
}

/** What the small marks are of. */
function Recorded() {
  const data = useLastHeard();
  if (!data) return null;
  return (
    <span data-recorded-by={data.take}>
      Small marks: as recorded in {data.name}, where it differs
      {data.current ? "." : "; the layout was changed since."}
    </span>
  );
}

function Sieve({ find, board }: { find: LookFor; board: Board }) {
  return (
    <div className="mb-2 space-y-2">
      <div className="flex min-h-[1.6125rem] flex-wrap items-center gap-2 text-[0.82rem] pointer-coarse:min-h-[40px]">
        <Later>
          <Search find={find} />
        </Later>
      </div>
      <VerdictSieve counts={board.counts} chosen={find.verdicts} onChoose={find.setVerdicts} />
    </div>
  );
}

/** What is looked for by name, and in which order: a line of its own, as high before it is there. */
function Search({ find }: { find: LookFor }) {
  return (
    <>
      <input
        type="search"
        className="field w-36 py-0.5"
        placeholder="Find a mic or drum"
        aria-label="Find a mic or drum"
        value={find.words}
        onChange={(e) => find.setWords(e.target.value)}
      />
      {find.inside && (
        <button type="button" className="btn px-2.5 py-0.5" onClick={() => find.setInside(null)}>
          All units
        </button>
      )}
      {find.look === "grid" && (
        <Pick
          label="Order of the mics"
          hideLabel
          className="py-0.5"
          value={find.order}
          options={ORDERS}
          onTake={(v) => find.setOrder(v as MicOrder)}
        />
      )}
      <Tick checked={find.whole} onTake={find.setWhole}>
        worst drum
      </Tick>
    </>
  );
}

interface ShownProps {
  find: LookFor;
  board: Board;
  source: string | null;
  onOpened: () => void;
}

function Shown({ find, board, source, onOpened }: ShownProps) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const { focus } = board;
  const pairs = useLastHeard(false)?.pairs;
  const marks = useMemo(() => heardMarks(pairs, source), [pairs, source]);
  const open = (a: string, b: string, on: string | null) => {
    onOpened();
    editor.open({ anchor: a, mover: b, source: on });
  };
  const sought = (a: string, b: string, verdict: Verdict) =>
    passes(doc, { a, b, verdict }, { verdicts: find.verdicts, words: find.words });
  if (find.look === "table") return <PairTable source={source} sought={sought} onOpen={open} />;
  if (find.look === "units" && !find.inside)
    return (
      <UnitGrid
        board={board}
        source={source}
        sought={(one, two, verdict) =>
          one.mics.some((a) => two.mics.some((b) => a !== b && sought(a, b, verdict)))
        }
        onOpen={(one, two, cell) => {
          if (one.mics.length + two.mics.length > 2 || one === two)
            find.setInside([...new Set([...one.mics, ...two.mics])]);
          open(...named(board.mic_ids, cell.a, cell.b), source);
        }}
      />
    );
  const { inside } = find;
  const order = micOrder(doc, board, find.order).filter((id) => inside?.includes(id) ?? true);
  return (
    <PairGrid
      layout={doc}
      board={board}
      order={order}
      source={source}
      open={focus ? { a: focus.a, b: focus.b } : null}
      left={(a, b) => leftOf(board, a, b)}
      sought={sought}
      heard={(a, b, planned) => heardBeside(marks, a, b, planned)}
      onOpen={(a, b) => open(...named(board.mic_ids, a, b), source)}
    />
  );
}
