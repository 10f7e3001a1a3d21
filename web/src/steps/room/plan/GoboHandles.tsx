/** Gobos and foam to take hold of: dragged where they stand, turned with Page Up and Page Down. */
import { type KeyboardEvent, memo } from "react";
import type { Room } from "../../../api/types";
import { goboCorners } from "../../../core/roomShape";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { moved, path, toScreen, type View } from "../../../core/view";
import { useEditorPart } from "../../../parts/editing";
import { arrowOf, follow, STEP_M, TURN_STEP } from "../../../parts/handSizes";

export type Gobo = Room["gobos"][number];

/** What becomes of a gobo as it is kept: keys pressed fast each go on from the last. */
export type GoboChange = (now: Gobo) => Partial<Gobo>;

/** Still under the hand, let go of, or moved by a step that others may follow. */
export type Handled = "held" | "let go" | "nudged";

interface Props {
  /** The room as it is kept. */
  kept: Room;
  view: View;
  ruler: Ruler;
  onGobo: (index: number, change: GoboChange, how: Handled) => void;
}

export const GoboHandles = memo(function GoboHandles({ kept, ...props }: Props) {
  const gobos = useEditorPart((s) => s.doc.room?.gobos) ?? kept.gobos;
  return gobos.map((gobo, i) => <Handle key={i} {...props} gobo={gobo} index={i} />);
});

function Handle(props: Omit<Props, "kept"> & { gobo: Gobo; index: number }) {
  const { gobo, view, ruler, index, onGobo } = props;
  const corners = goboCorners(gobo).map(([x, y]) => toScreen([x, y, 0], view));
  const away = `${lengthWithUnit(gobo.x_m, ruler)} from the left wall`;
  return (
    <path
      role="button"
      tabIndex={0}
      data-gobo={gobo.name}
      aria-label={`${gobo.name}, ${away}. Arrows move it, Page Up and Page Down turn it`}
      className="cursor-grab"
      d={path(corners)}
      fill="var(--room)"
      fillOpacity="0.35"
      stroke="var(--room)"
      strokeWidth="10"
      strokeOpacity="0"
      onKeyDown={(e) => byKey(e, (change) => onGobo(index, change, "nudged"))}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        follow(e, (dx, dy, done) => {
          const [x, y] = moved([gobo.x_m, gobo.y_m, 0], dx, dy, view);
          onGobo(index, () => ({ x_m: x, y_m: y }), done ? "let go" : "held");
        });
      }}
    />
  );
}

function byKey(e: KeyboardEvent, change: (by: GoboChange) => void) {
  const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 5);
  const arrow = arrowOf(e);
  const turn = { PageUp: TURN_STEP, PageDown: -TURN_STEP }[e.key];
  if (arrow) change((g) => ({ x_m: g.x_m + arrow[0] * size, y_m: g.y_m - arrow[1] * size }));
  else if (turn) change((g) => ({ turn_rad: g.turn_rad + turn }));
  else return;
  e.preventDefault();
}
