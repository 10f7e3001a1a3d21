/** Kit: what stands there, where exactly, and how it is tuned. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, exactly } from "../../api/client";
import type { KitBoard } from "../../api/types";
import type { Facing, Point3, View } from "../../core/view";
import { Chart } from "../../parts/Chart";
import { useEditorPart, useLit } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { at, centreOf, HandsProvider, partOf, useChangePart } from "./hands";
import { KitLayer } from "./KitLayer";
import { KitPanel } from "./KitPanel";
import { KitTable } from "./KitTable";
import { PartPanel } from "./PartPanel";
import { TapeWalk } from "./TapeWalk";
import { TuningPanel } from "./TuningPanel";

type Ends = [string, string | null];
const NOBODY = {
  onSelect: () => undefined,
  onHover: () => undefined,
  onMove: () => undefined,
  onAim: () => undefined,
  onNudge: () => undefined,
};
const NONE: string[] = [];

export function Kit() {
  return (
    <HandsProvider>
      <Work />
    </HandsProvider>
  );
}

/** The tape walk and the drummer's zones of the kit as it stands. */
function useKitBoard(skip: Ends[]) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["kit-board", still.kit, skip],
    queryFn: () => exactly<KitBoard>(api.POST("/api/kit/board", { body: { layout: still, skip } })),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

function Work() {
  const doc = useEditorPart((s) => s.doc);
  const [chosen, choose] = useState<string | null>(null);
  const [foot, setFoot] = useState<"tape" | "tuning" | "table">("tape");
  const [second, setSecond] = useState<Exclude<Facing, "above">>("along");
  const [skip, setSkip] = useState<Ends[]>([]);
  const lit = useLit();
  const board = useKitBoard(skip).data;
  const part = partOf(doc, chosen);
  const heights = {
    along: lit.side === "drummer" ? "From behind" : "From the front",
    side: lit.side === "drummer" ? "From the right" : "From the left",
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_288px] grid-rows-[minmax(0,1fr)_minmax(230px,37%)] max-[1050px]:grid-cols-[minmax(0,1fr)_250px]">
      <h1 className="sr-only">The kit</h1>
      <div className="grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
        <KitChart
          facing="above"
          title="The kit from above"
          board={board}
          chosen={chosen}
          onChoose={choose}
        />
        <KitChart
          facing={second}
          title={heights[second]}
          board={board}
          chosen={chosen}
          onChoose={choose}
          onTurn={() => setSecond(second === "along" ? "side" : "along")}
        />
      </div>
      <div className="col-start-1 row-start-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-hair bg-panel">
        <div className="flex px-4 py-1.5">
          <Segmented
            small
            label="Below the chart"
            value={foot}
            options={[
              ["tape", "By tape"],
              ["tuning", "Tuning"],
              ["table", "Table"],
            ]}
            onTake={setFoot}
          />
        </div>
        {foot === "tape" && (
          <TapeWalk
            board={board}
            skipped={skip.length}
            onSkip={(ends) => setSkip([...skip, ends])}
            onUnskip={() => setSkip([])}
          />
        )}
        {foot === "tuning" && <TuningPanel onChoose={choose} />}
        {foot === "table" && <KitTable board={board} chosen={chosen} onChoose={choose} />}
      </div>
      <aside
        aria-label="Drum or kit"
        className="col-start-2 row-span-2 row-start-1 space-y-4 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        {part ? (
          <>
            <button
              type="button"
              className="text-[0.88rem] text-snare underline"
              onClick={() => choose(null)}
            >
              The kit as a whole
            </button>
            <PartPanel key={part.id} part={part} onGone={() => choose(null)} />
          </>
        ) : (
          <KitPanel onChoose={choose} />
        )}
      </aside>
    </div>
  );
}

function KitChart(props: {
  facing: Facing;
  title: string;
  board: KitBoard | undefined;
  chosen: string | null;
  onChoose: (id: string) => void;
  onTurn?: () => void;
}) {
  const { facing, board, chosen, onChoose } = props;
  const layout = useEditorPart((s) => s.doc);
  const pairs = useEditorPart((s) => s.board);
  const lit = useLit();
  const ruler = useMe();
  const change = useChangePart();
  const hands = useMemo(
    () => ({
      onMove: (id: string, to: Point3, done: boolean) => {
        if (done) void change.take(id, (p) => at(p, to));
        else change.show(id, (p) => at(p, to));
      },
      onNudge: (id: string, by: Point3) =>
        void change.take(id, (p) => {
          const c = centreOf(p);
          return at(p, [c[0] + by[0], c[1] + by[1], c[2] + by[2]]);
        }),
    }),
    [change],
  );
  const layer = (view: View) => (
    <KitLayer
      view={view}
      layout={layout}
      board={board}
      ruler={ruler}
      chosen={chosen}
      onChoose={onChoose}
      {...hands}
    />
  );
  return (
    <Chart
      {...NOBODY}
      title={props.title}
      hint={
        facing === "above"
          ? lit.side === "drummer"
            ? "drummer at the foot"
            : "audience at the foot"
          : ""
      }
      facing={facing}
      side={lit.side}
      layout={layout}
      board={pairs}
      ruler={ruler}
      lit={NONE}
      selected={null}
      layer={layer}
      tools={
        props.onTurn && (
          <button type="button" className="btn px-2 py-0.5 text-[0.8rem]" onClick={props.onTurn}>
            {props.title.startsWith("From the right") || props.title.startsWith("From the left")
              ? "Front"
              : "Side"}
          </button>
        )
      }
    />
  );
}
