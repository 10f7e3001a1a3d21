/** Place: the floor chart from above and in height, the tapes, and what is selected. */

import { useMemo, useState } from "react";
import type { Layout } from "../../api/types";
import { added, placed, withMic } from "../../core/edits";
import type { Ruler } from "../../core/units";
import type { Facing, Point3 } from "../../core/view";
import { Chart, type ChartProps } from "../../parts/Chart";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { TAPES_HIGH, Tapes } from "../../parts/Tapes";
import { Inspector } from "./Inspector";
import { MicTable } from "./MicTable";

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
    const doc = () => editor.snapshot().doc;
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

type ChartLook = Pick<ChartProps, "title" | "hint" | "facing" | "tools">;

/** A chart of the layout as it is under the hand; the rest of the step is not drawn with it. */
function LiveChart(look: ChartLook) {
  const layout = useEditorPart((s) => s.doc);
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const glow = useGlow([lit.hovered, lit.selected, board?.focus?.a, board?.focus?.b]);
  const hands = useHands();
  return (
    <Chart
      {...look}
      {...hands}
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
  const layout = useEditorPart((s) => s.still);
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

export function Place() {
  const editor = useEditor();
  const lit = useLit();
  const ruler: Ruler = useMe();
  const [second, setSecond] = useState<Exclude<Facing, "above">>("along");
  const [foot, setFoot] = useState<"tapes" | "table">("tapes");
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
            ]}
            onTake={setFoot}
          />
        </div>
        {foot === "table" ? <MicTable /> : <LiveTapes />}
      </div>
      <aside
        aria-label="What is selected"
        className="relative col-start-2 row-span-2 row-start-1 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        <Inspector />
      </aside>
    </div>
  );
}
