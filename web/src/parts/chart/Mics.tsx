/** The mics on the chart, and what a hand or the keys can do to them. */
import { type KeyboardEvent, memo, type PointerEvent, useMemo } from "react";
import type { Layout, Mic } from "../../api/types";
import { micGoes } from "../../core/carry";
import { type OnEdge, onEdges } from "../../core/edges";
import { micOf } from "../../core/edits";
import { namePlaces } from "../../core/kitNames";
import { bodyOf, poseOf } from "../../core/micPose";
import { lengthWithUnit } from "../../core/units";
import { moved, type Point2, placeTags, toScreen, type View } from "../../core/view";
import { firstDrum, isFlipped, micColour } from "../../core/words";
import { arrowOf, follow, STEP_M } from "../handSizes";
import { cutsOf, placesOf } from "./cuts";
import type { ChartProps, InView } from "./look";
import { Plate, plateWide, Tear } from "./MicGlyph";

/** Where plates stand: out of each other's way, those of mics off the paper at its border. */
function platesOf({ layout, view, board, ruler }: Pick<InView, Standing>) {
  const every = layout.mics.map((m) => tagOf(m, view));
  const away = onEdges(
    every.map((t) => ({ ...t, wide: t.wide + 10 })),
    view,
  );
  const edge = new Map(away.map((a) => [a.id, a]));
  const tags = every.filter((t) => !edge.has(t.id));
  const names = [
    ...namePlaces(layout, view),
    ...cutsOf({ view, layout, places: placesOf(board, layout), ruler }),
  ];
  const standing = away.map(({ at, wide }) => ({ at, wide, high: 20 }));
  return { edge, places: placeTags(tags, view, names, standing) };
}

type Standing = "layout" | "view" | "board" | "ruler";

/** The place of a plate beside its mic: one that goes along with a hand has it go along too. */
function beside(mic: Mic, [x, y]: Point2, placed: Layout, view: View): Point2 {
  const was = micOf(placed, mic.id) ?? mic;
  if (was === mic) return [x, y];
  const [from, to] = [toScreen(was.position_m, view), toScreen(mic.position_m, view)];
  return [x + to[0] - from[0], y + to[1] - from[1]];
}

/** Every mic and its plate; what lights up moves none of them. */
export function Mics(props: InView) {
  const { layout, view, board, ruler } = props;
  const { still: placed = layout } = props;
  const { edge, places } = useMemo(
    () => platesOf({ layout: placed, view, board, ruler }),
    [placed, view, board, ruler],
  );
  return (
    <g>
      {layout.mics.map((mic) => {
        const off = edge.get(mic.id);
        if (off) return <EdgePlate key={mic.id} mic={mic} off={off} {...props} />;
        const look = lookOf(mic, props, beside(mic, places.get(mic.id) ?? [0, 0], placed, view));
        if (props.quiet)
          return (
            <g key={mic.id} data-goes={micGoes(mic.id)}>
              <MicShape {...look} />
            </g>
          );
        const { onSelect, onHover, onMove, onHold, onNudge } = props;
        return (
          <MicMark
            key={mic.id}
            {...look}
            said={describe(mic, props)}
            {...{ onSelect, onHover, onMove, onHold, onNudge }}
          />
        );
      })}
    </g>
  );
}

/** A mic off the paper: its plate at the border, pointing to it; pressed, it is selected. */
function EdgePlate({ mic, off, ...props }: InView & { mic: Mic; off: OnEdge }) {
  const { layout, lit, quiet } = props;
  const colour = micColour(mic, layout);
  const on = lit.includes(mic.id);
  const [x, y] = off.at;
  return (
    <g data-edge={mic.id} className="cursor-pointer" {...(quiet ? {} : edgeHands(mic, on, props))}>
      <Plate name="" x={x} y={y} wide={off.wide} {...{ on, colour }} edge={colour} />
      <text
        x={x - 5}
        y={y + 4}
        textAnchor="middle"
        fontSize="11.5"
        fontWeight="700"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {mic.id}
      </text>
      <path d={arrow(off)} fill={on ? "var(--on)" : colour} />
    </g>
  );
}

/** What a hand can do to a mic that is off the paper: select it. */
function edgeHands(mic: Mic, on: boolean, props: InView) {
  const { onSelect, onHover } = props;
  return {
    role: "button",
    tabIndex: 0,
    "aria-label": `${describe(mic, props)}, off this view`,
    "aria-pressed": on,
    onPointerEnter: () => onHover(mic.id),
    onPointerLeave: () => onHover(null),
    onPointerDown: (e: PointerEvent) => {
      e.stopPropagation();
      onSelect(mic.id, e.shiftKey);
    },
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === "Enter" || e.key === " ") onSelect(mic.id, e.shiftKey);
    },
  };
}

/** A small point at the end of a plate, toward its mic. */
function arrow({ at, wide, turn }: OnEdge): string {
  const t = (turn * Math.PI) / 180;
  const [x, y] = [at[0] + wide / 2 - 8, at[1]];
  const point = (by: number, far: number) =>
    `${(x + Math.cos(t + by) * far).toFixed(1)} ${(y + Math.sin(t + by) * far).toFixed(1)}`;
  return `M${point(0, 6)}L${point(2.3, 5)}L${point(-2.3, 5)}Z`;
}

/** What a plate must stand near and out of the way of. */
function tagOf(mic: Mic, view: View) {
  const at = toScreen(mic.position_m, view);
  const { body, toward } = bodyOf(mic, view);
  return { id: mic.id, at, body, avoid: toward, wide: plateWide(mic.id) };
}

/** How a mic looks now; plain values, so that one that stays as it is is not drawn anew. */
function lookOf(mic: Mic, props: InView, [plateX, plateY]: Point2): Look {
  const { layout, view, lit, board, fresh } = props;
  return {
    mic,
    view,
    colour: micColour(mic, layout),
    plateX,
    plateY,
    on: lit.includes(mic.id),
    blocked: Boolean(board?.blocked[mic.id]),
    flipped: isFlipped(mic, layout),
    fresh: Boolean(fresh?.includes(mic.id)),
    held: Boolean(mic.locks?.some((l) => l !== "polarity")),
  };
}

type Hands = Pick<ChartProps, "onSelect" | "onHover" | "onMove" | "onHold" | "onNudge">;

interface Look {
  mic: Mic;
  view: View;
  colour: string;
  plateX: number;
  plateY: number;
  on: boolean;
  blocked: boolean;
  flipped: boolean;
  fresh: boolean;
  held: boolean;
}

/** The drawing of a mic: its teardrop, its plate, and marks when it is flipped or held. */
const MicShape = memo(function MicShape(props: Look) {
  const { mic, view, colour, plateX, plateY, on, blocked, fresh } = props;
  const pose = poseOf(mic, view);
  const [x, y] = pose.at;
  const wide = plateWide(mic.id);
  return (
    <>
      <path d={`M${x} ${y}L${plateX} ${plateY}`} stroke={colour} strokeOpacity="0.5" />
      {on && view.facing !== "above" && <Stand mic={mic} view={view} />}
      <g data-fresh={fresh ? mic.id : undefined}>
        <Tear {...pose} colour={colour} fresh={fresh} edge={on ? "var(--ink)" : undefined} />
      </g>
      <circle cx={x} cy={y} r="13" fill="transparent" />
      <Plate
        name={mic.id}
        x={plateX}
        y={plateY}
        {...{ wide, on, colour }}
        edge={blocked ? "var(--hollow)" : undefined}
        heavy={blocked}
        dashed={blocked || fresh}
      />
      <Marks {...props} wide={wide} />
    </>
  );
});

/** A square where it is held in place, a triangle where it is flipped. */
function Marks({ mic, plateX, plateY, held, flipped, wide }: Look & { wide: number }) {
  return (
    <>
      {held && (
        <rect
          x={plateX - wide / 2 - 3}
          y={plateY - 12}
          width="7"
          height="7"
          rx="1.5"
          fill="var(--ink)"
          stroke="var(--paper)"
          data-held={mic.id}
        />
      )}
      {flipped && (
        <path
          d={`M${plateX + wide / 2 - 5} ${plateY - 13}h10l-5 8Z`}
          fill="var(--hollow)"
          stroke="var(--paper)"
          data-flipped={mic.id}
        />
      )}
    </>
  );
}

interface MarkProps extends Look, Hands {
  said: string;
}

const MicMark = memo(function MicMark(props: MarkProps) {
  const { mic, view, on, onSelect, onHover, onMove, onHold } = props;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={props.said}
      aria-pressed={on}
      data-mic={mic.id}
      data-view={view.facing}
      className="cursor-grab"
      onKeyDown={(e) => byKey(e, props)}
      onPointerEnter={(e) => e.buttons || onHover(mic.id)}
      onPointerLeave={(e) => e.buttons || onHover(null)}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        onSelect(mic.id, e.shiftKey);
        const from = mic.position_m;
        follow(
          e,
          (dx, dy, done) => onMove(mic.id, moved(from, dx, dy, view), done),
          onHold && (() => onHold(mic.id)),
        );
      }}
    >
      <MicShape {...props} />
    </g>
  );
});

/** Arrows move it in the plane of the chart, Page Up and Down in height; Enter selects it. */
function byKey(e: KeyboardEvent, { mic, view, onNudge, onSelect }: MarkProps) {
  const arrow = arrowOf(e);
  const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
  if (arrow) {
    const px = size * view.scale;
    onNudge(mic.id, moved(mic.position_m, arrow[0] * px, arrow[1] * px, view));
  } else if (e.key === "PageUp" || e.key === "PageDown") {
    const [x, y, z] = mic.position_m;
    onNudge(mic.id, [x, y, Math.max(0, z + (e.key === "PageUp" ? size : -size))]);
  } else if (e.key === "Enter" || e.key === " ") onSelect(mic.id, e.shiftKey);
  else return;
  e.preventDefault();
}

function Stand({ mic, view }: { mic: Mic; view: View }) {
  const [x, y] = toScreen(mic.position_m, view);
  const [, floor] = toScreen([mic.position_m[0], mic.position_m[1], 0], view);
  return (
    <line
      data-stand
      x1={x}
      x2={x}
      y1={y}
      y2={floor}
      stroke="var(--soft)"
      strokeWidth="1"
      strokeOpacity="0.6"
    />
  );
}

/** What a screen reader says of a mic. */
function describe(mic: Mic, props: InView): string {
  const { board, ruler, layout } = props;
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  const said = [mic.id, mic.name];
  if (board && row >= 0)
    for (const kind of ["snare", "kick"] as const) {
      const k = board.sources.findIndex((s) => s.id === firstDrum(layout, kind).id);
      said.push(`${lengthWithUnit(board.tape_m[row]?.[k] ?? 0, ruler)} from the ${kind}`);
    }
  if (isFlipped(mic, layout)) said.push("flipped");
  if (mic.locks?.length) said.push(`held: ${mic.locks.join(", ")}`);
  const blocked = board?.blocked[mic.id];
  if (blocked) said.push(blocked);
  return said.join(", ");
}
