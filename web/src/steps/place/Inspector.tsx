/** What is selected: a mic, or the pair it is opened with. */
import { memo, useMemo, useState } from "react";
import type { Layout } from "../../api/types";
import { micOf, partnerOf } from "../../core/edits";
import type { FocusKey } from "../../core/following";
import { sameParts } from "../../core/same";
import { StandWords } from "../../parts/atkit/Planned";
import { useEditorPart, useLit, useSelected } from "../../parts/editing";
import { Views } from "../../parts/fields/Views";
import { useInTurn } from "../../parts/Later";
import { VerdictCounts } from "../../parts/VerdictCounts";
import { MicPanel } from "./mic/MicPanel";
import { PairPanel } from "./pair/PairPanel";
import { StockPanel } from "./StockPanel";

interface Props {
  onTechnique: (id: string | null) => void;
}

/** What was selected, with the pair that opened with it. */
interface Opened {
  selected: string | null;
  focus: FocusKey | null;
}

type Tab = "mic" | "pair";

const NOTHING: Opened = { selected: null, focus: null };

/** Whether what is selected is half of a stereo pair, or else of the pair that is open. */
function pairedIn(doc: Layout, { selected, focus }: Opened) {
  const stereo = Boolean(selected && partnerOf(doc, selected));
  const asked = Boolean(selected && focus && [focus.anchor, focus.mover].includes(selected));
  return { stereo, asked: asked && !stereo };
}

/** A newly selected mic opens on what it is for, a pair that is newly opened with it on the pair. */
function tabOn(doc: Layout, now: Opened, was: Opened, tab: Tab): Tab {
  const { stereo, asked } = pairedIn(doc, now);
  if (asked && !(pairedIn(doc, was).asked && was.focus === now.focus)) return "pair";
  if (now.selected === was.selected) return tab;
  return stereo || !now.selected ? "pair" : "mic";
}

/** The tab that is open. It is found out before anything is drawn: else both would be drawn. */
function useTab(opened: Opened) {
  const doc = useEditorPart((s) => s.still);
  const [tab, setTab] = useState<Tab>("pair");
  const [was, keep] = useState(NOTHING);
  if (was !== opened) {
    keep(opened);
    setTab(tabOn(doc, opened, was, tab));
  }
  return [tab, setTab] as const;
}

/** After the drawings: whoever takes hold of a mic looks at those first. */
export function Inspector({ onTechnique }: Props) {
  const selected = useSelected();
  const focus = useEditorPart((s) => s.focus, sameParts);
  const opened = useInTurn(useMemo(() => ({ selected, focus }), [selected, focus]));
  return <Selected {...{ opened, onTechnique }} />;
}

const Selected = memo(function Selected({ opened, onTechnique }: Props & { opened: Opened }) {
  const { selected } = opened;
  const doc = useEditorPart((s) => s.still);
  const blocked = useEditorPart((s) => s.board?.blocked);
  const counts = useEditorPart((s) => s.board?.counts);
  // One that stands alone has no pair: what there is to see is how it stands.
  const alone = doc.mics.length === 1 ? doc.mics[0] : undefined;
  const mic = alone ?? (selected ? micOf(doc, selected) : undefined);
  const [tab, setTab] = useTab(opened);
  if (doc.mics.length === 0) return <NoMics onTechnique={onTechnique} />;
  return (
    <div className="space-y-4">
      {mic && <StandWords mic={mic.id} />}
      {/* The pair stays where it is when its mic is taken hold of: nothing of it is made anew. */}
      <Views
        small
        label="Show"
        value={alone ? "mic" : mic ? tab : "pair"}
        options={[
          ["mic", mic ? `Mic ${mic.id}` : "Mic"],
          ["pair", "Pair"],
        ]}
        onTake={setTab}
        bar={mic && !alone ? "mb-4" : "hidden"}
      >
        {mic && (alone || tab === "mic") ? (
          <MicPanel mic={mic} onTechnique={onTechnique} />
        ) : (
          <PairPanel />
        )}
      </Views>
      {blocked && <InTheWay blocked={blocked} />}
      <StockPanel />
      {counts && doc.mics.length > 1 && (
        <section className="border-t border-hair pt-3">
          <h3 className="mb-1.5 text-[0.95rem]">All pairs</h3>
          <VerdictCounts counts={counts} />
        </section>
      )}
    </div>
  );
});

function NoMics({ onTechnique }: { onTechnique: (id: string | null) => void }) {
  return (
    <div className="space-y-2">
      <h2 className="text-lg">No mics yet</h2>
      <p>
        Answer the <strong>Brief</strong> for a whole layout, take a <strong>technique</strong> from
        the list, or press <strong>Add a mic</strong> above the chart and drag it to its place.
      </p>
      <button type="button" className="btn-main w-full" onClick={() => onTechnique(null)}>
        Techniques
      </button>
    </div>
  );
}

/** Mics that stand where none can, said whichever mic is selected. */
function InTheWay({ blocked }: { blocked: Record<string, string> }) {
  const { select } = useLit();
  const selected = useSelected();
  const rows = Object.entries(blocked).filter(([id, words]) => words && id !== selected);
  if (!rows.length) return null;
  return (
    <section className="border-t border-hair pt-3" aria-label="Not clear">
      <h3 className="mb-1 text-[0.95rem]">Not clear</h3>
      <ul className="space-y-1 text-[0.88rem]" role="alert">
        {rows.map(([id, words]) => (
          <li key={id} data-blocked={id}>
            <button
              type="button"
              className="num font-bold text-hollow underline"
              onClick={() => select(id)}
            >
              {id}
            </button>{" "}
            {words}
          </li>
        ))}
      </ul>
    </section>
  );
}
