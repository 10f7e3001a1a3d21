/**
 * The floor chart in one view: kit to scale, mics to move, the ring, the spheres and the lines.
 * It draws and reports what the hand does; it fetches nothing and decides nothing.
 */
import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import type { Board, Layout, Mic, Units } from "../api/types";
import { micOf } from "../core/edits";
import { lengthWithUnit } from "../core/units";
import {
  type Facing,
  fitted,
  moved,
  type Point2,
  type Point3,
  path,
  placeTags,
  runs,
  type Side,
  toScreen,
  unit,
  type View,
  zoomed,
} from "../core/view";
import { firstDrum, micColour } from "../core/words";
import { CymbalShape, DrumShape } from "./DrumShape";
import { useSize } from "./useSize";

export interface ChartProps {
  title: string;
  hint: string;
  facing: Facing;
  side: Side;
  layout: Layout;
  board: Board | null;
  units: Units;
  lit: string[];
  selected: string | null;
  onSelect: (id: string, extend: boolean) => void;
  onHover: (id: string | null) => void;
  onMove: (id: string, to: Point3, done: boolean) => void;
  onAim: (id: string, aim: Point3, done: boolean) => void;
  onNudge: (id: string, to: Point3) => void;
  tools?: ReactNode;
}

const WIDE = 34;

/** Everything the fitted view should hold. */
function extent(layout: Layout, facing: Facing): Point3[] {
  const out: Point3[] = layout.mics.map((m) => m.position_m);
  for (const d of layout.kit.drums)
    for (const s of [-1, 1])
      out.push([d.batter_m[0] + (s * d.diameter_m) / 2, d.batter_m[1], 0] as const);
  for (const c of layout.kit.cymbals ?? [])
    for (const s of [-1, 1])
      out.push([c.centre_m[0] + (s * c.diameter_m) / 2, c.centre_m[1], c.centre_m[2]]);
  const rug = layout.kit.rug;
  if (rug && facing === "above")
    for (const s of [-1, 1])
      out.push([
        rug.centre_m[0] + (s * rug.width_m) / 2,
        rug.centre_m[1] + (s * rug.length_m) / 2,
        0,
      ]);
  if (layout.kit.stool) out.push([...layout.kit.stool.position_m, 0]);
  if (facing !== "above") out.push([0, 0, 1.95], [0, 0, -0.12]);
  return out;
}

export function Chart(props: ChartProps) {
  const { facing, side, layout, board, selected } = props;
  const [ref, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<View>({ facing, side, middle: [0, 0], scale: 0, ...size });
  const kitName = layout.kit.name;
  // biome-ignore lint/correctness/useExhaustiveDependencies: fits when the paper changes, not as mics move
  useEffect(() => {
    if (size.width) setView(fitted(extent(layout, facing), { ...view, ...size, facing, side }));
  }, [size.width, size.height, facing, side, kitName]);
  const fit = () => setView(fitted(extent(layout, facing), view));
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      const box = element.getBoundingClientRect();
      const at: Point2 = [e.clientX - box.left, e.clientY - box.top];
      setView((v) => zoomed(v, Math.exp(-e.deltaY * 0.0012), at));
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, []);
  const pan = useRef<{ x: number; y: number; view: View } | null>(null);

  return (
    <section className="relative flex min-h-0 min-w-0 flex-col" aria-label={props.title}>
      <header className="flex items-center gap-2 px-3 pt-2 text-[0.85rem]">
        <h2 className="whitespace-nowrap text-[0.95rem]">{props.title}</h2>
        <span className="truncate text-soft">{props.hint}</span>
        <span className="ml-auto flex shrink-0 gap-1">
          {props.tools}
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => setView((v) => zoomed(v, 1.25, [v.width / 2, v.height / 2]))}
            aria-label={`Zoom in, ${props.title}`}
          >
            +
          </button>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => setView((v) => zoomed(v, 0.8, [v.width / 2, v.height / 2]))}
            aria-label={`Zoom out, ${props.title}`}
          >
            −
          </button>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={fit}
            aria-label={`Fit, ${props.title}`}
          >
            Fit
          </button>
        </span>
      </header>
      <div ref={ref} className="min-h-0 flex-1 overflow-hidden">
        <svg
          ref={svg}
          width={size.width}
          height={size.height}
          role="group"
          aria-label={`${props.title}: mics of ${layout.name}`}
          className="block touch-none select-none"
          onPointerDown={(e) => {
            if (e.button !== 0) return;
            pan.current = { x: e.clientX, y: e.clientY, view };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerMove={(e) => {
            const from = pan.current;
            if (!from) return;
            const { scale, middle } = from.view;
            setView({
              ...view,
              middle: [
                middle[0] - (e.clientX - from.x) / scale,
                middle[1] + (e.clientY - from.y) / scale,
              ],
            });
          }}
          onPointerUp={() => {
            pan.current = null;
          }}
        >
          {view.scale > 0 && (
            <>
              <Ground view={view} layout={layout} units={props.units} />
              <KitDrawing view={view} layout={layout} />
              <Loci view={view} layout={layout} board={board} units={props.units} />
              <Mics {...props} view={view} svg={svg} />
              {selected && <AimHandle {...props} view={view} svg={svg} />}
            </>
          )}
        </svg>
      </div>
    </section>
  );
}

/** Floor grid of half metres and the rug; or the floor line and heights. */
function Ground({ view, layout, units }: { view: View; layout: Layout; units: Units }) {
  const { width, height, scale, middle } = view;
  const step = units === "cm" ? 0.5 : 0.3048 * 2;
  const lines: ReactNode[] = [];
  const x0 = middle[0] - width / 2 / scale;
  const y0 = middle[1] - height / 2 / scale;
  if (view.facing === "above") {
    for (let i = Math.ceil(x0 / step); i * step < x0 + width / scale; i++) {
      const x = (i * step - x0) * scale;
      lines.push(<line key={`x${i}`} x1={x} x2={x} y1={0} y2={height} />);
    }
    for (let i = Math.ceil(y0 / step); i * step < y0 + height / scale; i++) {
      const y = height - (i * step - y0) * scale;
      lines.push(<line key={`y${i}`} x1={0} x2={width} y1={y} y2={y} />);
    }
    return (
      <g aria-hidden="true">
        <Rug view={view} layout={layout} />
        <g stroke="var(--hair)" strokeWidth="0.7" opacity="0.7">
          {lines}
        </g>
        <RoomWalls view={view} layout={layout} />
      </g>
    );
  }
  const rows: ReactNode[] = [];
  for (let i = 0; i * step < 4; i++) {
    const y = height - (i * step - y0) * scale;
    if (y < 12 || y > height) continue;
    rows.push(
      <g key={i}>
        <line
          x1={0}
          x2={width}
          y1={y}
          y2={y}
          stroke={i ? "var(--hair)" : "var(--ink)"}
          strokeWidth={i ? 0.7 : 1.8}
        />
        <text x={6} y={y - 4} className="num" fontSize="10" fill="var(--soft)">
          {units === "cm" ? `${Math.round(i * step * 100)}` : `${i * 2}′`}
        </text>
      </g>,
    );
  }
  return <g aria-hidden="true">{rows}</g>;
}

function Rug({ view, layout }: { view: View; layout: Layout }) {
  const rug = layout.kit.rug;
  if (!rug) return null;
  const [cx, cy] = toScreen([rug.centre_m[0], rug.centre_m[1], 0], view);
  const [w, h] = [rug.width_m * view.scale, rug.length_m * view.scale];
  return (
    <rect
      x={cx - w / 2}
      y={cy - h / 2}
      width={w}
      height={h}
      rx="5"
      fill="var(--rug)"
      stroke="var(--hair)"
    />
  );
}

function RoomWalls({ view, layout }: { view: View; layout: Layout }) {
  const room = layout.room;
  if (!room) return null;
  const [c, s] = [Math.cos(room.kit_turn_rad), Math.sin(room.kit_turn_rad)];
  const corner = (x: number, y: number): Point3 => {
    const [dx, dy] = [x - room.kit_x_m, y - room.kit_y_m];
    return [c * dx + s * dy, -s * dx + c * dy, 0];
  };
  const box = [
    corner(0, 0),
    corner(room.width_m, 0),
    corner(room.width_m, room.length_m),
    corner(0, room.length_m),
  ].map((p) => toScreen(p, view));
  return <path d={path(box)} fill="none" stroke="var(--ink)" strokeWidth="3" opacity="0.55" />;
}

/** Where each drum's and cymbal's name stands in the plan; plates keep off these spots. */
function namePlaces(layout: Layout, view: View): { id: string; name: string; at: Point2 }[] {
  if (view.facing !== "above") return [];
  const { drums, cymbals = [] } = layout.kit;
  const down = view.side === "drummer" ? 1 : -1;
  const round = [
    ...drums
      .filter((d) => d.kind !== "kick")
      .map((d) => ({ id: d.id, name: d.name, p: d.batter_m, r: d.diameter_m / 2 })),
    ...cymbals.map((c) => ({ id: c.id, name: c.name, p: c.centre_m, r: c.diameter_m / 2 })),
  ].map(({ id, name, p, r }) => {
    const [x, y] = toScreen(p, view);
    return { id, name, at: [x, y + r * view.scale * 0.62] as Point2 };
  });
  const kicks = drums
    .filter((d) => d.kind === "kick")
    .map((d) => {
      const p = d.batter_m;
      const side = (d.diameter_m / 2) * 0.72;
      const [x, y] = toScreen([p[0] + side, p[1], p[2]], view);
      return { id: d.id, name: d.name, at: [x, y + (down > 0 ? 14 : -7)] as Point2 };
    });
  return [...round, ...kicks];
}

/** Drums, cymbals, stool and the drummer's zone, lowest first, with their names. */
function KitDrawing({ view, layout }: { view: View; layout: Layout }) {
  const { drums, cymbals = [], stool } = layout.kit;
  const depthOf = (p: Point3) =>
    view.facing === "above" ? p[2] : view.facing === "along" ? -p[1] : p[0];
  const turn = view.side === "drummer" || view.facing === "above" ? 1 : -1;
  const parts = [
    ...drums.map((d) => ({
      at: d.batter_m,
      draw: <DrumShape key={d.id} drum={d} view={view} />,
    })),
    ...cymbals.map((c) => ({
      at: c.centre_m,
      draw: <CymbalShape key={c.id} cymbal={c} view={view} />,
    })),
  ].sort((a, b) => turn * (depthOf(a.at) - depthOf(b.at)));
  return (
    <g>
      {stool && (
        <Seat
          view={view}
          at={stool.position_m}
          high={stool.height_m}
          zone={stool.zone_radius_m}
          top={stool.zone_top_m}
        />
      )}
      {parts.map((p) => p.draw)}
      {namePlaces(layout, view).map((n) => (
        <text
          key={n.id}
          x={n.at[0]}
          y={n.at[1]}
          textAnchor="middle"
          fontSize="11"
          fill="var(--soft)"
          aria-hidden="true"
        >
          {n.name}
        </text>
      ))}
      <References view={view} layout={layout} />
    </g>
  );
}

function Seat(props: { view: View; at: Point2; high: number; zone: number; top: number }) {
  const { view, at, high, zone, top } = props;
  if (view.facing === "above") {
    const [x, y] = toScreen([at[0], at[1], 0], view);
    return (
      <g aria-hidden="true">
        <circle
          cx={x}
          cy={y}
          r={zone * view.scale}
          fill="none"
          stroke="var(--soft)"
          strokeDasharray="2 5"
          opacity="0.6"
        />
        <circle
          cx={x}
          cy={y}
          r={0.15 * view.scale}
          fill="var(--hair)"
          opacity="0.8"
          stroke="var(--soft)"
          strokeWidth="0.8"
        />
        <text x={x} y={y + 4} textAnchor="middle" fontSize="11" fill="var(--soft)">
          stool
        </text>
      </g>
    );
  }
  const [x, floor] = toScreen([at[0], at[1], 0], view);
  const seat = floor - high * view.scale;
  const r = 0.11 * view.scale;
  return (
    <g aria-hidden="true" stroke="var(--soft)" strokeWidth="0.8" opacity="0.75">
      <rect
        x={x - 0.15 * view.scale}
        y={seat}
        width={0.3 * view.scale}
        height={5}
        fill="var(--hair)"
      />
      <line x1={x} x2={x} y1={seat} y2={floor} />
      <circle
        cx={x}
        cy={floor - (top - 0.14) * view.scale}
        r={r}
        fill="none"
        strokeDasharray="2 4"
      />
    </g>
  );
}

/** The two points that the tapes are held to. */
function References({ view, layout }: { view: View; layout: Layout }) {
  const snare = toScreen(referenceOf(layout, "snare"), view);
  const kick = toScreen(referenceOf(layout, "kick"), view);
  return (
    <g aria-hidden="true">
      <circle cx={snare[0]} cy={snare[1]} r="4.5" fill="var(--snare)" />
      <rect x={kick[0] - 4.5} y={kick[1] - 4.5} width="9" height="9" fill="var(--kick)" />
    </g>
  );
}

function referenceOf(layout: Layout, kind: "snare" | "kick"): Point3 {
  const d = firstDrum(layout, kind);
  if (d.reference === "batter") return d.batter_m;
  return [0, 1, 2].map(
    (i) => (d.batter_m[i] ?? 0) - d.depth_m * (d.axis[i] ?? 0),
  ) as unknown as Point3;
}

/** The ring of the open pair, the spheres where they cut the mover's height, the four lines. */
function Loci(props: { view: View; layout: Layout; board: Board | null; units: Units }) {
  const { view, layout, board } = props;
  const focus = board?.focus;
  const points = useMemo(
    () => focus?.places.ring.points_m.map((p) => toScreen(p, view)) ?? [],
    [focus, view],
  );
  if (!focus) return null;
  const anchor = micOf(layout, focus.places.anchor);
  const mover = micOf(layout, focus.places.mover);
  if (!anchor || !mover) return null;
  const [snare, kick] = [referenceOf(layout, "snare"), referenceOf(layout, "kick")];
  const line = (from: Point3, to: Point3, key: string, dashed: boolean) => {
    const [a, b] = [toScreen(from, view), toScreen(to, view)];
    const look = dashed
      ? { stroke: "var(--kick)", strokeDasharray: "4 3" }
      : { stroke: "var(--snare)" };
    return <line key={key} x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} strokeWidth="1.4" {...look} />;
  };
  return (
    <g aria-hidden="true">
      {view.facing === "above" && <SphereCuts {...props} anchor={anchor} mover={mover} />}
      {runs(focus.places.ring.clear).map((run) => (
        <path
          key={run.from}
          d={path(points.slice(run.from, run.to + 1), false)}
          fill="none"
          stroke="var(--ring)"
          strokeWidth={run.on ? 2.8 : 1.4}
          strokeDasharray={run.on ? undefined : "3 4"}
          opacity={run.on ? 1 : 0.7}
        />
      ))}
      {[anchor, mover].map((m) => line(m.position_m, snare, `s${m.id}`, false))}
      {[anchor, mover].map((m) => line(m.position_m, kick, `k${m.id}`, true))}
    </g>
  );
}

/**
 * Where the anchor's snare and kick spheres cut the height of the mic that moves: two circles
 * whose crossings are the equal spots at that height.
 */
function SphereCuts(props: {
  view: View;
  layout: Layout;
  board: Board | null;
  units: Units;
  anchor: Mic;
  mover: Mic;
}) {
  const { view, layout, anchor, mover, units } = props;
  return (["snare", "kick"] as const).map((kind) => {
    const at = referenceOf(layout, kind);
    const reach = Math.hypot(...anchor.position_m.map((v, i) => v - (at[i] ?? 0)));
    const cut = reach ** 2 - (mover.position_m[2] - at[2]) ** 2;
    if (cut <= 0) return null;
    const [x, y] = toScreen(at, view);
    const r = Math.sqrt(cut) * view.scale;
    const colour = kind === "snare" ? "var(--snare)" : "var(--kick)";
    const angle = kind === "snare" ? 2.75 : -2.05;
    return (
      <g key={kind}>
        <circle
          cx={x}
          cy={y}
          r={r}
          fill="none"
          stroke={colour}
          strokeWidth="1"
          strokeDasharray="2 6"
          opacity="0.75"
        />
        <text
          x={x + r * Math.cos(angle)}
          y={y + r * Math.sin(angle)}
          fontSize="10"
          className="num"
          fill={colour}
          textAnchor="middle"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {lengthWithUnit(reach, units)}
        </text>
      </g>
    );
  });
}

type Hand = ChartProps & { view: View; svg: React.RefObject<SVGSVGElement | null> };

/** Every mic: a teardrop whose point is the front of the capsule, and its plate. */
function Mics(props: Hand) {
  const { layout, view, lit, selected } = props;
  const tags = layout.mics.map((m) => {
    const at = toScreen(m.position_m, view);
    const front = toScreen(ahead(m, 0.1), view);
    const away: Point2 = [front[0] - at[0], front[1] - at[1]];
    const n = Math.hypot(...away) || 1;
    return {
      id: m.id,
      at,
      avoid: [away[0] / n, away[1] / n] as Point2,
      wide: Math.max(WIDE, m.id.length * 9 + 12),
    };
  });
  const places = placeTags(
    tags,
    view,
    namePlaces(layout, view).map((n) => n.at),
  );
  return (
    <g>
      {layout.mics.map((mic, i) => {
        const tag = tags[i];
        if (!tag) return null;
        return (
          <MicMark
            key={mic.id}
            {...props}
            mic={mic}
            at={tag.at}
            plate={places.get(mic.id) ?? tag.at}
            wide={tag.wide}
            on={lit.includes(mic.id) || selected === mic.id}
          />
        );
      })}
    </g>
  );
}

function ahead(mic: Mic, by: number): Point3 {
  const [p, a] = [mic.position_m, mic.aim];
  return [p[0] + a[0] * by, p[1] + a[1] * by, p[2] + a[2] * by];
}

/** Follow a pointer from down to up, in steps of one frame at most. */
function follow(
  start: React.PointerEvent,
  onStep: (dx: number, dy: number, done: boolean) => void,
) {
  const target = start.currentTarget as Element;
  target.setPointerCapture(start.pointerId);
  const [x0, y0] = [start.clientX, start.clientY];
  let far = false;
  const move = (e: Event) => {
    const p = e as PointerEvent;
    far ||= Math.hypot(p.clientX - x0, p.clientY - y0) > 2;
    if (far) onStep(p.clientX - x0, p.clientY - y0, false);
  };
  const end = (e: Event) => {
    const p = e as PointerEvent;
    target.removeEventListener("pointermove", move);
    if (far) onStep(p.clientX - x0, p.clientY - y0, true);
  };
  target.addEventListener("pointermove", move);
  target.addEventListener("pointerup", end, { once: true });
}

const STEP_M = 0.01;

function MicMark(props: Hand & { mic: Mic; at: Point2; plate: Point2; wide: number; on: boolean }) {
  const { mic, at, plate, wide, on, view, layout, board } = props;
  const front = toScreen(ahead(mic, 1), view);
  const turn = (Math.atan2(front[1] - at[1], front[0] - at[0]) * 180) / Math.PI;
  const along = Math.hypot(front[0] - at[0], front[1] - at[1]) / view.scale;
  const colour = micColour(mic, layout);
  const blocked = board?.blocked[mic.id];
  const onKey = (e: React.KeyboardEvent) => {
    const arrows: Record<string, Point2> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const arrow = arrows[e.key];
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
      aria-label={describe(mic, props)}
      aria-pressed={on}
      data-mic={mic.id}
      data-view={view.facing}
      className="cursor-grab"
      onKeyDown={onKey}
      onPointerEnter={() => props.onHover(mic.id)}
      onPointerLeave={() => props.onHover(null)}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        props.onSelect(mic.id, e.shiftKey);
        const from = mic.position_m;
        follow(e, (dx, dy, done) => props.onMove(mic.id, moved(from, dx, dy, view), done));
      }}
    >
      <line
        x1={at[0]}
        y1={at[1]}
        x2={plate[0]}
        y2={plate[1]}
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
          fill={colour}
          stroke={on ? "var(--ink)" : "var(--paper)"}
          strokeWidth="1.2"
        />
      </g>
      <circle cx={at[0]} cy={at[1]} r="13" fill="transparent" />
      <rect
        x={plate[0] - wide / 2}
        y={plate[1] - 9.5}
        width={wide}
        height="19"
        rx="4.5"
        fill={on ? colour : "var(--card)"}
        stroke={blocked ? "var(--hollow)" : on ? colour : "var(--ink)"}
        strokeWidth={blocked ? 2.2 : 1}
        strokeDasharray={blocked ? "3 2" : undefined}
      />
      <text
        x={plate[0]}
        y={plate[1] + 4}
        textAnchor="middle"
        fontSize="11.5"
        fontWeight="700"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {mic.id}
      </text>
    </g>
  );
}

function Stand({ mic, view }: { mic: Mic; view: View }) {
  const [x, y] = toScreen(mic.position_m, view);
  const [, floor] = toScreen([mic.position_m[0], mic.position_m[1], 0], view);
  return (
    <line x1={x} x2={x} y1={y} y2={floor} stroke="var(--soft)" strokeWidth="1" opacity="0.6" />
  );
}

/** What a screen reader says of a mic. */
function describe(mic: Mic, props: Hand): string {
  const { board, units, layout } = props;
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  const said = [mic.id, mic.name];
  if (board && row >= 0)
    for (const kind of ["snare", "kick"] as const) {
      const k = board.sources.findIndex((s) => s.id === firstDrum(layout, kind).id);
      said.push(`${lengthWithUnit(board.tape_m[row]?.[k] ?? 0, units)} from the ${kind}`);
    }
  const blocked = board?.blocked[mic.id];
  if (blocked) said.push(blocked);
  return said.join(", ");
}

/** A handle ahead of the selected mic that turns its aim within the view. */
function AimHandle(props: Hand) {
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
