/** The kit as it stands in the room, with the mics that stand off it. */
import { memo, useMemo } from "react";
import type { Cymbal, Drum, Layout, Mic, Room } from "../../../api/types";
import { ahead } from "../../../core/micPose";
import { type Named, namesBeside } from "../../../core/namesBeside";
import { toRoom } from "../../../core/roomShape";
import { type Point2, path, toScreen, type View } from "../../../core/view";
import { micColour } from "../../../core/words";
import { Tear } from "../../../parts/chart/MicGlyph";
import { snareAt, useCarried, useHeldTurn, withKit } from "./pose";

type To = (x: number, y: number) => Point2;

interface Props {
  layout: Layout;
  /** As it is kept. */
  room: Room;
  view: View;
}

/** Room for the names of overheads beside them, pixels. */
const NAMES = 60;

/** How far from the snare anything reaches that goes with it, metres. */
function reachOf({ kit, mics }: Layout): number {
  const { drums, cymbals, rug, stool } = kit;
  const far = ([x, y]: readonly number[], more: number) => Math.hypot(x ?? 0, y ?? 0) + more;
  return Math.max(
    ...drums.map((d) => far(d.batter_m, d.depth_m + d.diameter_m / 2)),
    ...(cymbals ?? []).map((c) => far(c.centre_m, c.diameter_m / 2)),
    ...mics.filter((m) => m.role === "overhead").map((m) => far(m.position_m, 0)),
    rug ? far(rug.centre_m, Math.hypot(rug.width_m, rug.length_m) / 2) : 0,
    stool ? far(stool.position_m, SEAT_M) : 0,
  );
}

/**
 * The kit on a sheet of its own, no larger than it: what is seen through costs every frame. Carried,
 * it is moved and not drawn; turned, it is drawn anew.
 */
export function KitSheet({ layout, room, view }: Props) {
  const turn = useHeldTurn(room);
  const sheet = useCarried<SVGSVGElement>(room, view, withKit);
  const [x, y] = snareAt(room, view);
  const far = useMemo(() => reachOf(layout), [layout]) * view.scale + NAMES;
  const [left, top, wide] = [Math.floor(x - far), Math.floor(y - far), Math.ceil(2 * far)];
  return (
    <svg
      ref={sheet}
      aria-hidden="true"
      width={wide}
      height={wide}
      viewBox={`${left} ${top} ${wide} ${wide}`}
      className="pointer-events-none absolute overflow-visible will-change-transform"
      style={{ left, top }}
    >
      <KitInRoom {...{ layout, room, view }} turn={turn} />
    </svg>
  );
}

interface KitProps extends Props {
  /** Where it is not as it is kept. */
  turn?: number;
}

export const KitInRoom = memo(function KitInRoom(props: KitProps) {
  const { layout, room, view, turn = room.kit_turn_rad } = props;
  const turned = { ...room, kit_turn_rad: turn };
  const to: To = (x, y) => toScreen([...toRoom(turned, x, y), 0], view);
  const { rug, drums, cymbals, stool } = layout.kit;
  return (
    <g aria-hidden="true" pointerEvents="none">
      {rug && <RugShape rug={rug} to={to} />}
      {drums.map((d) => (
        <DrumInRoom key={d.id} drum={d} to={to} scale={view.scale} />
      ))}
      {(cymbals ?? []).map((c) => (
        <CymbalInRoom key={c.id} cymbal={c} to={to} scale={view.scale} />
      ))}
      {stool && <Seat at={to(...stool.position_m)} scale={view.scale} />}
      <MicsInRoom layout={layout} those="overhead" to={to} />
    </g>
  );
});

/** Mics that stand in the room, wherever the kit is moved to. */
export const RoomMics = memo(function RoomMics({ layout, room, view }: Props) {
  const to: To = (x, y) => toScreen([...toRoom(room, x, y), 0], view);
  return (
    <g aria-hidden="true" pointerEvents="none">
      <MicsInRoom layout={layout} those="room" to={to} />
    </g>
  );
});

/** The mics of one kind, with their names. */
function MicsInRoom(props: { layout: Layout; those: Mic["role"]; to: To }) {
  const { layout, those, to } = props;
  const mics = layout.mics.filter((m) => m.role === those).map((m) => standing(m, to));
  const names = namesBeside(mics);
  return mics.map((stands) => (
    <MicInRoom
      key={stands.id}
      stands={stands}
      colour={micColour(stands.mic, layout)}
      name={names.get(stands.id) ?? stands.at}
    />
  ));
}

/** How far behind its point the middle of a teardrop of this size lies, pixels. */
const BODY_BEHIND = 6;

interface Stands extends Named {
  mic: Mic;
  /** Degrees on the screen. */
  turn: number;
  /** How long it looks from above, 0 to 1. */
  along: number;
}

/** Where a mic is on the plan, and which way it looks. */
function standing(mic: Mic, to: To): Stands {
  const at = to(mic.position_m[0], mic.position_m[1]);
  const [x, y] = ahead(mic, 1);
  const [fx, fy] = to(x, y);
  const way = Math.atan2(fy - at[1], fx - at[0]);
  const along = Math.hypot(mic.aim[0], mic.aim[1]);
  const behind = BODY_BEHIND * along;
  const body: Point2 = [at[0] - Math.cos(way) * behind, at[1] - Math.sin(way) * behind];
  const turn = (way * 180) / Math.PI;
  return { id: mic.id, mic, at, body, turn, along, wide: mic.id.length * LETTER };
}

/** Of a name, pixels. */
const LETTER = 6.6;

function RugShape({ rug, to }: { rug: NonNullable<Layout["kit"]["rug"]>; to: To }) {
  const [x, y, w, l] = [rug.centre_m[0], rug.centre_m[1], rug.width_m / 2, rug.length_m / 2];
  const corners = [to(x - w, y - l), to(x + w, y - l), to(x + w, y + l), to(x - w, y + l)];
  return <path d={path(corners)} className="fill-rug stroke-hair" />;
}

/** A drum that lies on its side is seen along its shell, one that stands as a circle. */
function DrumInRoom({ drum, to, scale }: { drum: Drum; to: To; scale: number }) {
  const [r, [ax, ay], [x, y]] = [drum.diameter_m / 2, drum.axis, drum.batter_m];
  const look = { fill: "var(--shell)", stroke: "var(--ink)", strokeWidth: "1.4" };
  if (Math.hypot(ax, ay) <= 0.8) {
    const [cx, cy] = to(x, y);
    return <circle {...{ cx, cy }} r={r * scale} {...look} />;
  }
  const [bx, by] = [x - ax * drum.depth_m, y - ay * drum.depth_m];
  const [sx, sy] = [-ay * r, ax * r];
  const corners = [
    to(x + sx, y + sy),
    to(bx + sx, by + sy),
    to(bx - sx, by - sy),
    to(x - sx, y - sy),
  ];
  return <path d={path(corners)} {...look} />;
}

function CymbalInRoom({ cymbal, to, scale }: { cymbal: Cymbal; to: To; scale: number }) {
  const [cx, cy] = to(cymbal.centre_m[0], cymbal.centre_m[1]);
  return (
    <circle
      {...{ cx, cy }}
      r={(cymbal.diameter_m / 2) * scale}
      fill="var(--brass)"
      fillOpacity="0.12"
      stroke="var(--brass)"
    />
  );
}

const SEAT_M = 0.15;

function Seat({ at, scale }: { at: Point2; scale: number }) {
  return <circle cx={at[0]} cy={at[1]} r={SEAT_M * scale} fill="var(--hair)" />;
}

/** The same teardrop as on the floor chart, smaller, turned with the kit. */
function MicInRoom(props: { stands: Stands; colour: string; name: Point2 }) {
  const { stands, colour, name } = props;
  const { at, turn, along } = stands;
  return (
    <g>
      <Tear {...{ at, turn, along, colour }} size={0.7} />
      <text
        x={name[0]}
        y={name[1] + 4}
        textAnchor="middle"
        fontSize="11"
        fontWeight="700"
        className="num"
        fill="var(--ink)"
        stroke="var(--card)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {stands.id}
      </text>
    </g>
  );
}
