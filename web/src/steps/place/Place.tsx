/** Place: the floor chart from above and in height, the tapes, and what is selected. */

import { useEffect, useMemo, useState } from "react";
import type { Layout } from "../../api/types";
import { added, placed, techniqueOf, withMic } from "../../core/edits";
import type { Ruler } from "../../core/units";
import type { Facing, Point3 } from "../../core/view";
import { Chart, type ChartProps } from "../../parts/Chart";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { TAPES_HIGH, Tapes } from "../../parts/Tapes";
import { FitPanel } from "./FitPanel";
import { Inspector } from "./Inspector";
import { MicTable } from "./MicTable";
import { useStanding, useTechniques } from "./techniques/data";
import { TechniquePanel } from "./techniques/TechniquePanel";
import { WhatIf } from "./techniques/WhatIf";

const vec = (p: Point3): [number, number, number] => [p[0], p[1], p[2]];

const HEIGHTS_IN = { cm: "cm", "ft-in": "feet", hand: "hands" };

/** The same list as long as the same mics glow, so that nothing is drawn anew for it. */
function useGlow(ids: (string | null | undefined)[]): string[] {
  const key = [...new Set(ids.filter(Boolean))].join(" ");
  return useMemo(() => key.split(" ").filter(Boolean), [key]);
}

/** What the hand does to the open layout; one set of functions for as long as it is open. */
function useHands() {
  const editor = useEditor();
  return useMemo(() => {
    const doc = () => {
      const now = editor.snapshot();
      // A technique that is only shown is not taken by moving something beside it.
      return now.doc.mics.length === now.still.mics.length ? now.doc : now.still;
    };
    const show = (next: Layout, what: string, done: boolean) =>
      done ? editor.commit(next, what) : editor.preview(next);
    return {
      onMove: (id: string, to: Point3, done: boolean) =>
        show(placed(doc(), id, to), `Moved ${id}`, done),
      onAim: (id: string, aim: Point3, done: boolean) =>
        show(withMic(doc(), id, { aim: vec(aim) }), `Aimed ${id}`, done),
      onNudge: (id: string, to: Point3) => editor.commitSoon(placed(doc(), id, to), `Moved ${id}`),
    };
  }, [editor]);
}

type ChartLook = Pick<ChartProps, "title" | "hint" | "facing" | "tools"> & {
  /** Mics of the technique that is open. */
  together: string[];
};

/** A chart of the layout as it is under the hand; the rest of the step is not drawn with it. */
function LiveChart({ together, ...look }: ChartLook) {
  const layout = useEditorPart((s) => s.doc);
  const still = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const pair = together.length ? together : [board?.focus?.a, board?.focus?.b];
  const glow = useGlow([lit.hovered, lit.selected, ...pair]);
  const hands = useHands();
  const fresh = useMemo(() => {
    const there = new Set(still.mics.map((m) => m.id));
    return layout.mics.map((m) => m.id).filter((id) => !there.has(id));
  }, [layout.mics, still.mics]);
  return (
    <Chart
      {...look}
      {...hands}
      fresh={fresh}
      layout={layout}
      board={board}
      ruler={ruler}
      side={lit.side}
      lit={glow}
      selected={lit.selected}
      onSelect={lit.select}
      onHover={lit.hover}
    />
  );
}

function LiveTapes() {
  const layout = useEditorPart((s) =>
    s.doc.mics.length === s.still.mics.length ? s.still : s.doc,
  );
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const glow = useGlow([lit.hovered, lit.selected, board?.focus?.a, board?.focus?.b]);
  if (!board) return <div style={{ height: TAPES_HIGH }} />;
  return (
    <Tapes
      layout={layout}
      board={board}
      ruler={ruler}
      lit={glow}
      onHover={lit.hover}
      onSelect={lit.select}
    />
  );
}

const NONE: string[] = [];

type Foot = "tapes" | "table" | "what if";
type SideOf = "selected" | "techniques" | "fit";

/** The curves of the technique that is open, or what to do to see some. */
function WhatIfOf({ taken }: { taken: string | null }) {
  const standing = useStanding().data;
  const list = useTechniques().data;
  const row = standing?.find((r) => r.id === taken) ?? standing?.[0];
  const technique = list?.find((t) => t.id === row?.technique);
  if (row && technique) return <WhatIf key={row.id} row={row} technique={technique} />;
  return (
    <p className="px-4 pb-6 text-[0.9rem] text-soft" style={{ minHeight: TAPES_HIGH }}>
      {standing?.length === 0
        ? "Take a technique first: then one of its numbers can be slid here, with what it does to levels, distances and verdicts."
        : "Looking…"}
    </p>
  );
}

export function Place() {
  const editor = useEditor();
  const lit = useLit();
  const ruler: Ruler = useMe();
  const [second, setSecond] = useState<Exclude<Facing, "above">>("along");
  const [foot, setFoot] = useState<Foot>("tapes");
  const [side, setSide] = useState<SideOf>("selected");
  const [opened, setOpened] = useState<string | null>(null);
  const shown = useEditorPart((s) => s.still.techniques?.find((t) => t.id === opened));
  const together = side === "techniques" && shown ? shown.mics : NONE;
  const openTechnique = (id: string | null) => {
    setOpened(id);
    setSide("techniques");
    if (id === null) setFoot((f) => (f === "what if" ? "tapes" : f));
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a newly selected mic changes what is open
  useEffect(() => {
    const { doc, still } = editor.snapshot();
    if (!lit.selected || side !== "techniques" || doc.mics.length !== still.mics.length) return;
    const own = techniqueOf(still, lit.selected);
    if (own) setOpened(own.id);
    else setSide("selected");
  }, [lit.selected]);
  const addMic = () => {
    const next = added(editor.snapshot().doc);
    editor.commit(next.layout, `Added ${next.id}`);
    lit.select(next.id);
  };
  const heights = {
    along: lit.side === "drummer" ? "From behind" : "From the front",
    side: lit.side === "drummer" ? "From the right" : "From the left",
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_288px] max-[1050px]:grid-cols-[minmax(0,1fr)_250px] grid-rows-[minmax(0,1fr)_auto]">
      <h1 className="sr-only">Place the mics</h1>
      <div className="grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
        <LiveChart
          together={together}
          facing="above"
          title="From above"
          hint={lit.side === "drummer" ? "drummer at the foot" : "audience at the foot"}
          tools={
            <>
              <button type="button" className="btn px-2 py-0.5 text-[0.8rem]" onClick={addMic}>
                Add a mic
              </button>
              <button
                type="button"
                className="btn px-2 py-0.5 text-[0.8rem]"
                onClick={() => lit.setSide(lit.side === "drummer" ? "audience" : "drummer")}
              >
                {lit.side === "drummer" ? "Audience view" : "Drummer view"}
              </button>
            </>
          }
        />
        <LiveChart
          together={together}
          facing={second}
          title={heights[second]}
          hint={`heights in ${HEIGHTS_IN[ruler.units]}`}
          tools={
            <button
              type="button"
              className="btn px-2 py-0.5 text-[0.8rem]"
              onClick={() => setSecond(second === "along" ? "side" : "along")}
            >
              {second === "along" ? "Side" : "Front"}
            </button>
          }
        />
      </div>
      <div className="col-start-1 row-start-2 border-t border-hair bg-panel">
        <div className="flex justify-end px-3 pt-1.5">
          <Segmented
            small
            label="Below the chart"
            value={foot}
            options={[
              ["tapes", "Tapes"],
              ["table", "Table"],
              ["what if", "What if"],
            ]}
            onTake={setFoot}
          />
        </div>
        {foot === "table" && <MicTable />}
        {foot === "tapes" && <LiveTapes />}
        {foot === "what if" && <WhatIfOf taken={opened} />}
      </div>
      <aside
        aria-label="What is selected"
        className="relative col-start-2 row-span-2 row-start-1 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        <div className="mb-3">
          <Segmented
            small
            label="Beside the chart"
            value={side}
            options={[
              ["selected", "Selected"],
              ["techniques", "Techniques"],
              ["fit", "Fit"],
            ]}
            onTake={setSide}
          />
        </div>
        {side === "selected" && <Inspector onTechnique={openTechnique} />}
        {side === "techniques" && (
          <TechniquePanel
            opened={opened}
            open={openTechnique}
            onWhatIf={() => setFoot("what if")}
          />
        )}
        {side === "fit" && <FitPanel />}
      </aside>
    </div>
  );
}
