/** What is on trial on the chart before it is taken: where mics would be, dashed, beside where they are. */
import { useMemo } from "react";
import { Chart } from "../../parts/chart/Chart";
import { placesOf } from "../../parts/chart/cuts";
import { Loci, PairLines } from "../../parts/chart/Loci";
import { titlesOf } from "../../parts/chart/seenFrom";
import { useEditorPart, useHovered, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { VerdictCounts } from "../../parts/VerdictCounts";
import type { Tried } from "./useTrial";

export interface TrialProps {
  tried: Tried;
  onBack: () => void;
}

const FACINGS = ["above", "along"] as const;
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

export function Trial({ tried, onBack }: TrialProps) {
  const board = useEditorPart((s) => s.board);
  return (
    <section className="flex min-h-0 flex-col" aria-label="On trial">
      <header className="flex flex-wrap items-center gap-3 px-4 pt-3">
        <p className="min-w-0 flex-1 font-semibold" data-trial={tried.kind}>
          On trial, not saved: {tried.words}
        </p>
        <button type="button" className="btn" onClick={onBack}>
          Back
        </button>
        <button type="button" className="btn-main" onClick={tried.take}>
          Take it
        </button>
      </header>
      {board && (
        <div className="px-4 pt-1">
          <VerdictCounts counts={board.counts} />
        </div>
      )}
      <TwoViews tried={tried} />
    </section>
  );
}

function TwoViews({ tried }: { tried: Tried }) {
  const board = useEditorPart((s) => s.board);
  const ruler = useMe();
  const lit = useLit();
  const { moved, hint } = tried;
  const key = tried.ids.join(" ");
  const ids = useMemo(() => key.split(" "), [key]);
  const layout = useShown(ids, moved);
  const places = placesOf(board, layout);
  const glow = [useHovered(), ...ids, board?.focus?.a, board?.focus?.b];
  const titles = titlesOf(lit.side);
  return (
    <div
      className={`grid min-h-0 flex-1 grid-cols-2 border-t border-hair [&>section]:border-r [&>section]:border-hair narrow:h-[45dvh] narrow:min-h-64 narrow:flex-none narrow:grid-cols-1 narrow:[&>section+section]:hidden ${moved ? "" : "narrow:hidden"}`}
    >
      {FACINGS.map((facing) => (
        <Chart
          key={facing}
          {...{ facing, hint, layout, board, ruler }}
          title={titles[facing]}
          side={lit.side}
          lit={glow.filter((x): x is string => Boolean(x))}
          fresh={moved ? ids : []}
          onSelect={NOTHING}
          onHover={lit.hover}
          onMove={NOTHING}
          onNudge={NOTHING}
          lain={(view) => (
            <>
              <Loci {...{ view, layout, places, ruler }} />
              <PairLines {...{ view, layout, places }} />
            </>
          )}
        />
      ))}
    </div>
  );
}
