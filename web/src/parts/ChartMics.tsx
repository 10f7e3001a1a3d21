/** The mics on the chart, and what a hand or the keys can do to them. */
import { memo } from "react";
import type { Mic } from "../api/types";
import { micOf } from "../core/edits";
import { lengthWithUnit } from "../core/units";
import {
  moved,
  type Point2,
  type Point3,
  placeTags,
  toScreen,
  unit,
  type View,
} from "../core/view";
import { firstDrum, isFlipped, micColour } from "../core/words";
import type { ChartProps } from "./Chart";
import { namePlaces } from "./ChartGround";
import { arrowOf, follow, STEP_M } from "./hands";

const WIDE = 34;

/** `quiet` mics are only drawn: another step has the hand. */
type Hand = ChartProps & { view: View; quiet?: boolean };

/** Every mic: a teardrop whose point is the front of the capsule, and its plate. */
export function Mics(props: Hand) {
  const { layout, view, lit, selected } = props;
  const tags = layout.mics.map((m) => {
    const at = toScreen(m.position_m, view);
    const front = toScreen(ahead(m, 0.1), view);
    const away: Point2 = [front[0] - at[0], front[1] - at[1]];
    const n = Math.hypot(...away) || 1;
    return {
      id: m.id,
      at,
      body: bodyOf(at, away, n),
      avoid: [away[0] / n, away[1] / n] as Point2,
      wide: Math.max(WIDE, m.id.length * 9 + 12),
    };
  });
  const places = placeTags(
    tags,
    view,
    namePlaces(layout.kit, view).map((n) => n.at),
  );
  return (
    <g>
      {layout.mics.map((mic, i) => {
        const tag = tags[i];
        if (!tag) return null;
        const look = {
          mic,
          view,
          colour: micColour(mic, layout),
          plateX: (places.get(mic.id) ?? tag.at)[0],
          plateY: (places.get(mic.id) ?? tag.at)[1],
          wide: tag.wide,
          on: lit.includes(mic.id) || selected === mic.id,
          blocked: Boolean(props.board?.blocked[mic.id]),
          flipped: isFlipped(mic),
          fresh: Boolean(props.fresh?.includes(mic.id)),
          held: Boolean(mic.locks?.some((l) => l !== "polarity")),
        };
        if (props.quiet) return <MicShape key={mic.id} {...look} />;
        return (
          <MicMark
            key={mic.id}
            {...look}
            said={describe(mic, props)}
            onSelect={props.onSelect}
            onHover={props.onHover}
            onMove={props.onMove}
            onNudge={props.onNudge}
          />
        );
      })}
    </g>
  );
}

const BODY_BEHIND = 9;

/** The middle of the teardrop, which lies behind its point. */
function bodyOf(at: Point2, away: Point2, n: number): Point2 {
  return [at[0] - (away[0] / n) * BODY_BEHIND, at[1] - (away[1] / n) * BODY_BEHIND];
}

function ahead(mic: Mic, by: number): Point3 {
  const [p, a] = [mic.position_m, mic.aim];
  return [p[0] + a[0] * by, p[1] + a[1] * by, p[2] + a[2] * by];
}

type Hands = Pick<ChartProps, "onSelect" | "onHover" | "onMove" | "onNudge">;

interface MarkProps extends Hands {
  mic: Mic;
  view: View;
  colour: string;
  plateX: number;
  plateY: number;
  wide: number;
  on: boolean;
  blocked: boolean;
  flipped: boolean;
  fresh: boolean;
  held: boolean;
  said: string;
}

/** The drawing of a mic: its teardrop, its plate, and a mark when it is flipped. */
function MicShape(props: Omit<MarkProps, keyof Hands | "said">) {
  const { mic, view, colour, plateX, plateY, wide, on, blocked, flipped, fresh, held } = props;
  const at = toScreen(mic.position_m, view);
  const front = toScreen(ahead(mic, 1), view);
  const turn = (Math.atan2(front[1] - at[1], front[0] - at[0]) * 180) / Math.PI;
  const along = Math.hypot(front[0] - at[0], front[1] - at[1]) / view.scale;
  return (
    <>
      <line
        x1={at[0]}
        y1={at[1]}
        x2={plateX}
        y2={plateY}
        stroke={colour}
        strokeWidth="1"
        opacity="0.5"
      />
      {on && view.facing !== "above" && <Stand mic={mic} view={view} />}
      <g
        transform={`translate(${at[0]} ${at[1]}) rotate(${turn}) scale(${Math.max(0.6, along)} 1)`}
      >
        <path
          d="M0 0C-6 -1.5 -9 -6.5 -14 -6.5A6.5 6.5 0 0 0 -14 6.5C-9 6.5 -6 1.5 0 0Z"
          fill={fresh ? "var(--card)" : colour}
          stroke={fresh ? colour : on ? "var(--ink)" : "var(--paper)"}
          strokeWidth={fresh ? 1.8 : 1.2}
          strokeDasharray={fresh ? "3 2" : undefined}
          data-fresh={fresh ? mic.id : undefined}
        />
      </g>
      <circle cx={at[0]} cy={at[1]} r="13" fill="transparent" />
      <rect
        x={plateX - wide / 2}
        y={plateY - 9.5}
        width={wide}
        height="19"
        rx="4.5"
        fill={on ? colour : "var(--card)"}
        stroke={blocked ? "var(--hollow)" : on ? colour : "var(--ink)"}
        strokeWidth={blocked ? 2.2 : 1}
        strokeDasharray={blocked || fresh ? "3 2" : undefined}
      />
      <text
        x={plateX}
        y={plateY + 4}
        textAnchor="middle"
        fontSize="11.5"
        fontWeight="700"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {mic.id}
      </text>
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

const MicMark = memo(function MicMark(props: MarkProps) {
  const { mic, view, on } = props;
  const onKey = (e: React.KeyboardEvent) => {
    const arrow = arrowOf(e);
    const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
    if (arrow) {
      e.preventDefault();
      const px = size * view.scale;
      props.onNudge(mic.id, moved(mic.position_m, arrow[0] * px, arrow[1] * px, view));
    } else if (e.key === "PageUp" || e.key === "PageDown") {
      e.preventDefault();
      const [x, y, z] = mic.position_m;
      props.onNudge(mic.id, [x, y, Math.max(0, z + (e.key === "PageUp" ? size : -size))]);
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      props.onSelect(mic.id, e.shiftKey);
    }
  };
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={props.said}
      aria-pressed={on}
      data-mic={mic.id}
      data-view={view.facing}
      className="cursor-grab"
      onKeyDown={onKey}
      onPointerEnter={(e) => e.buttons || props.onHover(mic.id)}
      onPointerLeave={(e) => e.buttons || props.onHover(null)}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        props.onSelect(mic.id, e.shiftKey);
        const from = mic.position_m;
        follow(e, (dx, dy, done) => props.onMove(mic.id, moved(from, dx, dy, view), done));
      }}
    >
      <MicShape {...props} />
    </g>
  );
});

function Stand({ mic, view }: { mic: Mic; view: View }) {
  const [x, y] = toScreen(mic.position_m, view);
  const [, floor] = toScreen([mic.position_m[0], mic.position_m[1], 0], view);
  return (
    <line x1={x} x2={x} y1={y} y2={floor} stroke="var(--soft)" strokeWidth="1" opacity="0.6" />
  );
}

/** What a screen reader says of a mic. */
function describe(mic: Mic, props: Hand): string {
  const { board, ruler, layout } = props;
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  const said = [mic.id, mic.name];
  if (board && row >= 0)
    for (const kind of ["snare", "kick"] as const) {
      const k = board.sources.findIndex((s) => s.id === firstDrum(layout, kind).id);
      said.push(`${lengthWithUnit(board.tape_m[row]?.[k] ?? 0, ruler)} from the ${kind}`);
    }
  if (isFlipped(mic)) said.push("flipped");
  if (mic.locks?.length) said.push(`held: ${mic.locks.join(", ")}`);
  const blocked = board?.blocked[mic.id];
  if (blocked) said.push(blocked);
  return said.join(", ");
}

/** A handle ahead of the selected mic that turns its aim within the view. */
export function AimHandle(props: Hand) {
  const { view, layout, selected } = props;
  const mic = selected ? micOf(layout, selected) : undefined;
  if (!mic) return null;
  const reach = 46 / view.scale;
  const tip = toScreen(ahead(mic, reach), view);
  const at = toScreen(mic.position_m, view);
  const turnBy = (angle: number) => {
    // Turn the aim about the axis that looks out of the drawing.
    const away: Point3 =
      view.facing === "above" ? [0, 0, 1] : view.facing === "along" ? [0, -1, 0] : [1, 0, 0];
    const flip = view.facing !== "above" && view.side === "audience" ? -1 : 1;
    return unit(spun(mic.aim, away, flip * angle));
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Aim of ${mic.id}`}
      aria-valuenow={Math.round((Math.atan2(at[1] - tip[1], tip[0] - at[0]) * 180) / Math.PI)}
      aria-valuemin={-180}
      aria-valuemax={180}
      className="cursor-crosshair"
      data-aim={mic.id}
      onKeyDown={(e) => {
        const step = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 }[e.key];
        if (!step) return;
        e.preventDefault();
        const degrees = step * (e.shiftKey ? 15 : e.altKey ? 1 : 5);
        props.onAim(mic.id, turnBy((degrees * Math.PI) / 180), true);
      }}
      onPointerDown={(e) => {
        e.stopPropagation();
        const began = Math.atan2(at[1] - tip[1], tip[0] - at[0]);
        follow(e, (dx, dy, done) => {
          const now = Math.atan2(at[1] - (tip[1] + dy), tip[0] + dx - at[0]);
          props.onAim(mic.id, turnBy(now - began), done);
        });
      }}
    >
      <line
        x1={at[0]}
        y1={at[1]}
        x2={tip[0]}
        y2={tip[1]}
        stroke="var(--ink)"
        strokeWidth="1"
        strokeDasharray="2 3"
      />
      <circle
        cx={tip[0]}
        cy={tip[1]}
        r="5"
        fill="var(--card)"
        stroke="var(--ink)"
        strokeWidth="1.5"
      />
      <circle cx={tip[0]} cy={tip[1]} r="12" fill="transparent" />
    </g>
  );
}

/** A vector turned about a unit axis (Rodrigues' rotation). */
function spun(p: Point3, axis: Point3, angle: number): Point3 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const dot = p[0] * axis[0] + p[1] * axis[1] + p[2] * axis[2];
  const x: Point3 = [
    axis[1] * p[2] - axis[2] * p[1],
    axis[2] * p[0] - axis[0] * p[2],
    axis[0] * p[1] - axis[1] * p[0],
  ];
  return [0, 1, 2].map(
    (i) => (p[i] ?? 0) * c + (x[i] ?? 0) * s + (axis[i] ?? 0) * dot * (1 - c),
  ) as unknown as Point3;
}
