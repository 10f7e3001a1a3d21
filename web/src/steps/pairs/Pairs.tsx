/** Pairs: what arrives, every pair in one grid, and one pair with what to do about it. */
import { useEffect, useState } from "react";
import { useLocation } from "react-router";
import { firstDrum } from "../../core/words";
import { Pulses } from "../../parts/curves/Pulses";
import { useEditor, useEditorPart, useHovered, useLit } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { Tick } from "../../parts/fields/Tick";
import { Views } from "../../parts/fields/Views";
import { Later } from "../../parts/Later";
import { NoMics } from "../../parts/NoMics";
import { useNarrow } from "../../parts/narrow";
import { BestFlips } from "./BestFlips";
import { Balance } from "./balance/Balance";
import { PairDetail } from "./detail/PairDetail";
import { EveryPair, MANY } from "./EveryPair";
import { InTurn, type Part } from "./InTurn";
import { OneByOne } from "./OneByOne";
import { Picture } from "./Picture";
import { Trial } from "./Trial";
import { ToDo } from "./todo/ToDo";
import { type OnTrial, type Trying, useTrial } from "./useTrial";

const VIEWS = [
  ["todo", "To do"],
  ["pulses", "First half-waves"],
  ["one by one", "One by one"],
  ["flips", "Best flips"],
  ["picture", "Picture"],
  ["balance", "Balance"],
] as const;
type View = (typeof VIEWS)[number][0];

export function Pairs() {
  const doc = useEditorPart((s) => s.still);
  const computed = useEditorPart((s) => s.board !== null);
  const [drum, setDrum] = useState(firstDrum(doc, "snare").id);
  const [view, setView] = useState<View>("todo");
  const trial = useTrial();
  const narrow = useNarrow();
  const came = useLocation().state as { opened?: boolean } | null;
  usePutAway(Boolean(came?.opened));
  // Who comes for the pair that is open sees it; by the steps one comes for what there is to do.
  const [part, setPart] = useState<Part>(came?.opened ? "one" : "look");
  const { shown, back } = trial;
  if (!computed) return <p className="p-6 text-soft">Computing…</p>;
  if (doc.mics.length < 2) return <NoMics words="A pair needs two mics." />;
  const onOpened = () => {
    back();
    setPart("one");
  };
  const parts = {
    look: <LookAt {...{ drum, view, trial, onOpened }} onDrum={setDrum} onView={setView} />,
    every: <EveryPair {...{ drum, onOpened }} />,
    one: <OpenedPair trial={trial} />,
  };
  if (narrow)
    return (
      <InTurn
        {...{ parts, part }}
        onPart={setPart}
        onTrial={shown && { tried: shown, onBack: back }}
      />
    );
  return (
    <div className="grid h-full grid-cols-[minmax(0,1.5fr)_minmax(380px,1fr)] grid-rows-[minmax(0,1fr)_auto] has-[[data-wide]]:grid-cols-[minmax(0,1fr)_minmax(600px,1.15fr)]">
      <h1 className="sr-only">Pairs of mics</h1>
      {shown ? (
        <Trial tried={shown} onBack={back} />
      ) : (
        <Later meanwhile={<div />}>{parts.look}</Later>
      )}
      {parts.every}
      {parts.one}
    </div>
  );
}

/**
 * Among many mics the step opens with the list and the whole grid; a pair is opened from there, or
 * where somebody comes for it.
 */
function usePutAway(cameForIt: boolean) {
  const editor = useEditor();
  const many = useEditorPart((s) => s.still.mics.length > MANY);
  useEffect(() => {
    if (many && !cameForIt) editor.open(null);
  }, [editor, many, cameForIt]);
}

interface LookProps {
  drum: string;
  onDrum: (id: string) => void;
  view: View;
  onView: (view: View) => void;
  trial: Trying;
  onOpened: () => void;
}

function LookAt({ drum, onDrum, view, onView, trial, onOpened }: LookProps) {
  const sources = useEditorPart((s) => s.board?.sources) ?? [];
  return (
    <section
      className="relative overflow-y-auto p-4"
      aria-label={VIEWS.find((v) => v[0] === view)?.[1]}
    >
      <Views
        label="Look at"
        value={view}
        options={VIEWS}
        onTake={onView}
        bar="mb-2 flex flex-wrap items-center gap-3"
        beside={
          view === "pulses" && (
            <Segmented
              small
              label="Drum"
              value={drum}
              options={sources.map((s) => [s.id, s.name] as const)}
              onTake={onDrum}
            />
          )
        }
      >
        {view === "todo" && <ToDo {...{ trial, onOpened }} onBalance={() => onView("balance")} />}
        {view === "pulses" && <Arrivals drum={drum} />}
        {view === "one by one" && <OneByOne />}
        {view === "flips" && <BestFlips />}
        {view === "picture" && <Picture />}
        {view === "balance" && <Balance />}
      </Views>
    </section>
  );
}

function OpenedPair({ trial }: { trial: OnTrial }) {
  const focus = useEditorPart((s) => s.board?.focus);
  return (
    <div
      className={`col-span-2 overflow-hidden border-t border-hair bg-panel narrow:h-auto ${focus ? "h-[max(38vh,296px)]" : ""}`}
    >
      {focus ? (
        <Later>
          <PairDetail key={`${focus.a} ${focus.b}`} focus={focus} {...trial} />
        </Later>
      ) : (
        <p className="px-5 py-2 text-soft">Choose a pair in the grid to see it in full.</p>
      )}
    </div>
  );
}

function Arrivals({ drum }: { drum: string }) {
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const { hover } = useLit();
  const hovered = useHovered();
  const many = doc.mics.length > MANY;
  const [needed, setNeeded] = useState(many);
  const [byUnit, setByUnit] = useState(many);
  if (!board) return null;
  const glow = [hovered, board.focus?.a, board.focus?.b].filter((x): x is string => Boolean(x));
  return (
    <>
      <div className="mb-1 flex gap-4 text-[0.85rem]">
        <Tick checked={needed} onTake={setNeeded}>
          what the mix hears of it
        </Tick>
        <Tick checked={byUnit} onTake={setByUnit}>
          by unit
        </Tick>
      </div>
      <Pulses
        {...{ layout: doc, board, needed, byUnit }}
        source={drum}
        lit={glow}
        onHover={hover}
      />
      <p className="mt-1 max-w-xl text-[0.88rem] text-soft">
        Each pulse stands where the drum arrives and points the way the capsule is first pushed. A
        dashed pulse is a guess: the mic sits near the plane of the head, in a null, or where a
        reflection may lead, so listen before you trust it.
      </p>
    </>
  );
}
