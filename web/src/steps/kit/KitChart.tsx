/** The kit from above and in height, with what a hand can take hold of. */
import { memo, type ReactNode, useMemo } from "react";
import type { KitBoard } from "../../api/types";
import { drawnOf } from "../../core/carry";
import { centreOf, isDrum, type Part, partAt, partOf } from "../../core/kitParts";
import type { Facing, Point3, View } from "../../core/view";
import { Chart } from "../../parts/chart/Chart";
import { useHeights, useSeenFrom } from "../../parts/chart/seenFrom";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { useChangePart, useHands } from "../../parts/hands";
import { Later } from "../../parts/Later";
import { useMe } from "../../parts/me";
import { useNarrow } from "../../parts/narrow";
import { KitLayer } from "./KitLayer";

/** On this chart no mic is taken hold of. */
const NOBODY = {
  onSelect: () => undefined,
  onHover: () => undefined,
  onMove: () => undefined,
  onNudge: () => undefined,
};
const NONE: string[] = [];

interface Props {
  board: KitBoard | undefined;
  onChoose: (id: string) => void;
}

export const KitCharts = memo(function KitCharts(props: Props) {
  return useNarrow() ? <OneChart {...props} /> : <TwoCharts {...props} />;
});

/** One of the views, where there is room for one. */
function OneChart(props: Props) {
  const { facing, title, turn } = useSeenFrom();
  return (
    <div className="grid min-h-0">
      <KitChart
        key={facing}
        {...props}
        {...{ facing, tools: turn }}
        title={`The kit ${title.toLowerCase()}`}
      />
    </div>
  );
}

function TwoCharts(props: Props) {
  const { facing, title, turn } = useHeights();
  return (
    <div className="grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
      <KitChart {...props} facing="above" title="The kit from above" />
      <Later meanwhile={<div />}>
        <KitChart {...props} {...{ facing, title, tools: turn }} />
      </Later>
    </div>
  );
}

/** Moves of a part: shown while the hand moves, taken where it lets go. */
function useMoves() {
  const editor = useEditor();
  const change = useChangePart();
  return useMemo(
    () => ({
      onHold: (id: string) => {
        const part = partOf(editor.snapshot().doc, id);
        return part && centreOf(part);
      },
      onMove: (id: string, to: Point3, done: boolean) => {
        if (done) void change.take(id, (p) => partAt(p, to));
        else change.show(id, (p) => partAt(p, to));
      },
      onNudge: change.nudge,
      onWires: (id: string, turn: (now: number) => number, done: boolean) => {
        const turned = (p: Part) =>
          isDrum(p) ? { ...p, wires_rad: turn(p.wires_rad ?? 0) % WHOLE } : p;
        if (done) void change.take(id, turned);
        else change.show(id, turned);
      },
    }),
    [change, editor],
  );
}

const WHOLE = 2 * Math.PI;

function KitChart(props: Props & { facing: Facing; title: string; tools?: ReactNode }) {
  const { facing, title, tools, board, onChoose } = props;
  const editor = useEditor();
  const hands = useHands();
  const layout = useEditorPart((s) => (hands.holds ? drawnOf(s.doc, s.still, facing) : s.doc));
  const still = useEditorPart((s) => s.still);
  const pairs = useEditorPart((s) => s.board);
  const { side } = useLit();
  const ruler = useMe();
  const moves = useMoves();
  const carrying = useMemo(
    () => ({
      now: () => {
        const { doc, still } = editor.snapshot();
        return hands.holds && drawnOf(doc, still, facing) === still ? doc : null;
      },
      subscribe: editor.subscribe,
    }),
    [editor, hands, facing],
  );
  const layer = (view: View) => (
    <KitLayer {...{ view, layout, board, ruler, onChoose }} {...moves} />
  );
  return (
    <Chart
      {...NOBODY}
      {...{ title, facing, side, layout, still, carrying, ruler, layer, tools }}
      hint={facing === "above" ? `${side} at the foot` : ""}
      board={pairs}
      lit={NONE}
    />
  );
}
