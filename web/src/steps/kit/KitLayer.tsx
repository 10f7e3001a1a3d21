/** What a hand or the keys can take hold of on the kit chart, and the zones to keep clear. */
import { type KeyboardEvent, memo } from "react";
import type { Drum, KitBoard, Layout } from "../../api/types";
import { partGoes } from "../../core/carry";
import { centreOf, isDrum, type Part, partsOf } from "../../core/kitParts";
import { lengthWithUnit, type Ruler } from "../../core/units";
import {
  disc,
  moved,
  outline,
  type Point2,
  type Point3,
  path,
  toScreen,
  type View,
} from "../../core/view";
import { endsOf, floorUnder } from "../../parts/chart/carry";
import { arrowOf, follow, STEP_M } from "../../parts/handSizes";
import { useIsChosen } from "./chosen";
import { WiresHandle } from "./WiresHandle";

interface Props {
  view: View;
  layout: Layout;
  board: KitBoard | undefined;
  ruler: Ruler;
  onChoose: (id: string) => void;
  /** A hand comes down on it: where it is. */
  onHold: (id: string) => Point3 | undefined;
  onMove: (id: string, to: Point3, done: boolean) => void;
  onNudge: (id: string, by: Point3) => void;
  onWires: (id: string, turn: (now: number) => number, done: boolean) => void;
}

export function KitLayer(props: Props) {
  const { view, layout, board, ruler, onChoose, onHold, onMove, onNudge } = props;
  const parts = partsOf(layout);
  const ask = board?.tape.next;
  const doubtful = new Set(
    board?.tape.readings.filter((r) => r.state !== "fits").flatMap((r) => [r.a, r.b]) ?? [],
  );
  return (
    <g>
      {board && view.facing === "above" && <Zones view={view} board={board} />}
      {board?.tape.readings.map((r) => {
        const [a, b] = [parts.find((p) => p.id === r.a), parts.find((p) => p.id === r.b)];
        if (!a || !b) return null;
        return <TapeLine key={`${r.a} ${r.b}`} view={view} a={a} b={b} state={r.state} />;
      })}
      {ask && <NextLine view={view} parts={parts} a={ask.a} b={ask.b} />}
      {parts.map((p) => (
        <Grip
          key={p.id}
          {...{ view, ruler, onChoose, onHold, onMove, onNudge }}
          part={p}
          unsure={doubtful.has(p.id)}
        />
      ))}
      {view.facing === "above" &&
        layout.kit.drums
          .filter((d) => d.kind === "snare")
          .map((d) => <Wires key={d.id} drum={d} view={view} onWires={props.onWires} />)}
    </g>
  );
}

type WiresProps = Pick<Props, "view" | "onWires"> & { drum: Drum };

/** Turned only of a snare that is chosen. */
const Wires = memo(function Wires(props: WiresProps) {
  const on = useIsChosen(props.drum.id);
  return (
    on && (
      <g data-goes={partGoes(props.drum.id)}>
        <WiresHandle {...props} />
      </g>
    )
  );
});

const Zones = memo(function Zones({ view, board }: { view: View; board: KitBoard }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {board.sweeps_m.map(([a, b], i) => (
        <path
          key={i}
          d={path([toScreen(a, view), toScreen(b, view)], false)}
          stroke="var(--soft)"
          strokeWidth={SWEEP_WIDE_M * view.scale}
          strokeOpacity="0.09"
        />
      ))}
      {board.pedals_m.map(([a, b], i) => (
        <path
          key={i}
          d={path(strip(a, b, board.pedal_wide_m).map((c) => toScreen(c, view)))}
          fill="none"
          stroke="var(--soft)"
          strokeDasharray="2 4"
          strokeOpacity="0.7"
        />
      ))}
    </g>
  );
});

/** Drawn as wide as a hand and its stick sweep, either side of the line. */
const SWEEP_WIDE_M = 0.16;

/** The corners of a strip of the floor from `a` to `b`. */
function strip(a: Point2, b: Point2, wide: number): Point3[] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const n = Math.hypot(dx, dy) || 1;
  const [u, v] = [(-dy / n) * (wide / 2), (dx / n) * (wide / 2)];
  return [
    [a[0] + u, a[1] + v, 0],
    [b[0] + u, b[1] + v, 0],
    [b[0] - u, b[1] - v, 0],
    [a[0] - u, a[1] - v, 0],
  ];
}

function held(part: Part): Point3 {
  if (!isDrum(part) || part.reference !== "front") return centreOf(part);
  const [b, a, d] = [part.batter_m, part.axis, part.depth_m];
  return [b[0] - d * a[0], b[1] - d * a[1], b[2] - d * a[2]];
}

interface TapeLineProps {
  view: View;
  a: Part;
  b: Part;
  state: string;
}

/** A reading that was taken: thin when it fits, dashed when it is in doubt. */
const TapeLine = memo(function TapeLine(props: TapeLineProps) {
  const [p, q] = [toScreen(held(props.a), props.view), toScreen(held(props.b), props.view)];
  const fits = props.state === "fits";
  return (
    <line
      {...endsOf([partGoes(props.a.id), partGoes(props.b.id)], [p, q])}
      aria-hidden="true"
      pointerEvents="none"
      stroke={props.state === "misfit" ? "var(--hollow)" : fits ? "var(--ring)" : "var(--late)"}
      strokeWidth={fits ? 1.2 : 2.2}
      strokeDasharray={fits ? undefined : "6 4"}
      strokeOpacity="0.75"
    />
  );
});

/** Where the tape goes next: a thick line, or a plumb line to the floor. */
function NextLine(props: { view: View; parts: Part[]; a: string; b: string | null }) {
  const { view, parts, a, b } = props;
  const one = parts.find((p) => p.id === a);
  const two = parts.find((p) => p.id === b);
  if (!one) return null;
  const p = toScreen(held(one), view);
  const [x, y] = held(one);
  const q: Point2 = two ? toScreen(held(two), view) : toScreen([x, y, 0], view);
  const goes = partGoes(a);
  const ends = endsOf([goes, two ? partGoes(two.id) : floorUnder(goes)], [p, q]);
  return (
    <g aria-hidden="true" pointerEvents="none">
      <line {...ends} stroke="var(--snare)" strokeWidth="4" strokeLinecap="round" />
      <End at={p} goes={goes} />
      {two && <End at={q} goes={partGoes(two.id)} />}
    </g>
  );
}

function End({ at, goes }: { at: Point2; goes: string }) {
  return (
    <circle
      data-goes={goes}
      cx={at[0]}
      cy={at[1]}
      r="8"
      stroke="var(--snare)"
      strokeWidth="2.5"
      fill="var(--card)"
    />
  );
}

const GRIP_PX = 19;

type Told = "view" | "ruler" | "onChoose" | "onHold" | "onMove" | "onNudge";

interface GripProps extends Pick<Props, Told> {
  part: Part;
  unsure: boolean;
}

const Grip = memo(function Grip(props: GripProps) {
  const { part, view, unsure } = props;
  const on = useIsChosen(part.id);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={spoken(part, unsure, props.ruler)}
      aria-pressed={on}
      data-part={part.id}
      data-view={view.facing}
      data-goes={partGoes(part.id)}
      className="cursor-grab"
      onKeyDown={(e) => byKey(e, props)}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        props.onChoose(part.id);
        const from = props.onHold(part.id);
        if (from)
          follow(e, (dx, dy, done) => props.onMove(part.id, moved(from, dx, dy, view), done));
      }}
    >
      <Held {...{ part, view, on, unsure }} />
    </g>
  );
});

function spoken(part: Part, unsure: boolean, ruler: Ruler): string {
  const high = `${lengthWithUnit(centreOf(part)[2], ruler)} high`;
  return [part.name, high, unsure ? "its place is no longer sure" : ""].filter(Boolean).join(", ");
}

/** Arrows move it in the plane of the chart, Page Up and Down in height; Enter chooses it. */
function byKey(e: KeyboardEvent, { part, view, onNudge, onChoose }: GripProps) {
  const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
  const arrow = arrowOf(e);
  if (arrow) {
    const px = size * view.scale;
    const to = moved([0, 0, 10], arrow[0] * px, arrow[1] * px, view);
    onNudge(part.id, [to[0], to[1], to[2] - 10]);
  } else if (e.key === "PageUp" || e.key === "PageDown")
    onNudge(part.id, [0, 0, e.key === "PageUp" ? size : -size]);
  else if (e.key === "Enter" || e.key === " ") onChoose(part.id);
  else return;
  e.preventDefault();
}

type HeldProps = Pick<GripProps, "part" | "view" | "unsure"> & { on: boolean };

/** The cross at its centre, the room for a finger round it, and its rim when chosen. */
const Held = memo(function Held(props: HeldProps) {
  const { part, view, on, unsure } = props;
  const centre = centreOf(part);
  const [x, y] = toScreen(centre, view);
  const rim = outline(disc(centre, part.axis, part.diameter_m / 2).map((p) => toScreen(p, view)));
  return (
    <>
      {on && (
        <path
          d={path(rim)}
          fill="var(--ring)"
          fillOpacity="0.14"
          stroke="var(--ring)"
          strokeWidth="2.5"
        />
      )}
      <circle
        cx={x}
        cy={y}
        r={Math.min((part.diameter_m / 2) * view.scale, GRIP_PX)}
        fill="transparent"
      />
      <path
        d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`}
        stroke={unsure ? "var(--late)" : on ? "var(--ring)" : "var(--soft)"}
        strokeWidth={on ? 2 : 1.4}
        strokeOpacity={on || unsure ? 1 : 0.7}
      />
    </>
  );
});
