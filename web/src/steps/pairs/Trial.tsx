/** A remedy on the chart before it is taken: where the mic would be, dashed, beside where it is. */
import { useMemo } from "react";
import type { Remedy } from "../../api/types";
import { channelOf, remedied } from "../../core/edits";
import { Chart } from "../../parts/chart/Chart";
import { Loci, PairLines, placesOf } from "../../parts/chart/Loci";
import { useEditorPart, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { VerdictCounts } from "../../parts/VerdictCounts";

interface Props {
  remedy: Remedy;
  onBack: () => void;
  onTake: () => void;
}

const NOTHING = () => undefined;

/** The layout with each moved mic also where it stands now, so that the way is seen. */
function useShown(ids: string[], moved: boolean) {
  const doc = useEditorPart((s) => s.doc);
  const still = useEditorPart((s) => s.still);
  return useMemo(() => {
    const old = moved ? still.mics.filter((m) => ids.includes(m.id)) : [];
    return { ...doc, mics: [...doc.mics, ...old.map((m) => ({ ...m, id: `${m.id}'` }))] };
  }, [doc, still, moved, ids]);
}

/** What the remedy does, in a word or two beside the chart. */
function useHint(remedy: Remedy): string {
  const still = useEditorPart((s) => s.still);
  const switched = remedy.channels.find((c) => {
    const was = channelOf(still, c.mic);
    return was && was.preamp_flip !== c.preamp_flip;
  });
  if (switched) return `${switched.mic} ${switched.preamp_flip ? "flipped" : "no longer flipped"}`;
  return remedy.steps.length ? "dashed: where it would be" : "no mic moves";
}

export function Trial({ remedy, onBack, onTake }: Props) {
  const board = useEditorPart((s) => s.board);
  return (
    <section className="flex min-h-0 flex-col" aria-label="Remedy on trial">
      <header className="flex flex-wrap items-center gap-3 px-4 pt-3">
        <p className="min-w-0 flex-1 font-semibold" data-trial={remedy.kind}>
          On trial, not saved: {remedy.words}
        </p>
        <button type="button" className="btn" onClick={onBack}>
          Back
        </button>
        <button type="button" className="btn-main" onClick={onTake}>
          Take it
        </button>
      </header>
      {board && (
        <div className="px-4 pt-1">
          <VerdictCounts counts={board.counts} />
        </div>
      )}
      <TwoViews remedy={remedy} />
    </section>
  );
}

function TwoViews({ remedy }: { remedy: Remedy }) {
  const board = useEditorPart((s) => s.board);
  const ruler = useMe();
  const lit = useLit();
  const ids = useMemo(() => remedied(remedy), [remedy]);
  const moved = remedy.steps.length > 0;
  const layout = useShown(ids, moved);
  const places = placesOf(board, layout);
  const hint = useHint(remedy);
  const glow = [lit.hovered, ...ids, board?.focus?.a, board?.focus?.b];
  const views = [
    ["above", "From above"],
    ["along", lit.side === "drummer" ? "From behind" : "From the front"],
  ] as const;
  return (
    <div className="grid min-h-0 flex-1 grid-cols-2 border-t border-hair [&>section]:border-r [&>section]:border-hair">
      {views.map(([facing, title]) => (
        <Chart
          key={facing}
          {...{ facing, title, hint, layout, board, ruler }}
          side={lit.side}
          lit={glow.filter((x): x is string => Boolean(x))}
          fresh={moved ? ids : []}
          selected={null}
          onSelect={NOTHING}
          onHover={lit.hover}
          onMove={NOTHING}
          onAim={NOTHING}
          onNudge={NOTHING}
          under={[
            (view) => <Loci {...{ view, layout, places, ruler }} />,
            (view) => <PairLines {...{ view, layout, places }} />,
          ]}
        />
      ))}
    </div>
  );
}
