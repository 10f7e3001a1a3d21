/** Place: the floor chart from above and in height, the tapes, and what is selected. */
import { useState } from "react";
import { added, placed, withMic } from "../../core/edits";
import type { Facing, Point3 } from "../../core/view";
import { Chart } from "../../parts/Chart";
import { useEditor, useEditorState, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { Tapes } from "../../parts/Tapes";
import { Inspector } from "./Inspector";
import { MicTable } from "./MicTable";

const vec = (p: Point3): [number, number, number] => [p[0], p[1], p[2]];

export function Place() {
  const editor = useEditor();
  const { doc, board } = useEditorState();
  const lit = useLit();
  const { units } = useMe();
  const [second, setSecond] = useState<Exclude<Facing, "above">>("along");
  const [foot, setFoot] = useState<"tapes" | "table">("tapes");
  const focus = board?.focus;
  const glow = [lit.hovered, lit.selected, focus?.a, focus?.b].filter((x): x is string =>
    Boolean(x),
  );
  const shared = {
    layout: doc,
    board,
    units,
    side: lit.side,
    lit: glow,
    selected: lit.selected,
    onSelect: lit.select,
    onHover: lit.hover,
    onMove: (id: string, to: Point3, done: boolean) => {
      const next = placed(doc, id, to);
      if (done) editor.commit(next, `Moved ${id}`);
      else editor.preview(next);
    },
    onAim: (id: string, aim: Point3, done: boolean) => {
      const next = withMic(doc, id, { aim: vec(aim) });
      if (done) editor.commit(next, `Aimed ${id}`);
      else editor.preview(next);
    },
    onNudge: (id: string, to: Point3) => editor.commitSoon(placed(doc, id, to), `Moved ${id}`),
  };
  const addMic = () => {
    const next = added(doc);
    editor.commit(next.layout, `Added ${next.id}`);
    lit.select(next.id);
  };
  const heights = {
    along: lit.side === "drummer" ? "From behind" : "From the front",
    side: lit.side === "drummer" ? "From the right" : "From the left",
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_288px] grid-rows-[minmax(0,1fr)_auto]">
      <h1 className="sr-only">Place the mics</h1>
      <div className="grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
        <Chart
          {...shared}
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
        <Chart
          {...shared}
          facing={second}
          title={heights[second]}
          hint={units === "cm" ? "heights in cm" : "heights in feet"}
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
        {foot === "table" ? (
          <MicTable />
        ) : (
          board && (
            <Tapes
              layout={doc}
              board={board}
              units={units}
              lit={glow}
              onHover={lit.hover}
              onSelect={lit.select}
            />
          )
        )}
      </div>
      <aside
        aria-label="What is selected"
        className="col-start-2 row-span-2 row-start-1 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        <Inspector />
      </aside>
    </div>
  );
}
