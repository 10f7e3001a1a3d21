/** What the chart stands on: floor, rug, walls, drums, cymbals, stool, the two reference points. */

import { memo, type ReactNode, useMemo } from "react";
import type { Kit, Layout } from "../../api/types";
import { partGoes } from "../../core/carry";
import { namePlaces } from "../../core/kitNames";
import { goboCorners, outlineOf, toKit } from "../../core/roomShape";
import type { Ruler } from "../../core/units";
import { type Point2, type Point3, path, toScreen, type View } from "../../core/view";
import { firstDrum } from "../../core/words";
import { CymbalShape, DrumShape } from "./DrumShape";

type Room = NonNullable<Layout["room"]>;

interface GroundProps {
  view: View;
  rug: Kit["rug"];
  room: Room | null;
  ruler: Ruler;
}

/** Half a metre, two feet, or two hands. */
function gridStep(ruler: Ruler): number {
  if (ruler.units === "cm") return 0.5;
  return ruler.units === "ft-in" ? 0.3048 * 2 : ruler.hand.hand_m * 2;
}

function gridMark(i: number, ruler: Ruler): string {
  if (ruler.units === "cm") return String(i * 50);
  return ruler.units === "ft-in" ? `${i * 2}′` : `${i * 2} h`;
}

/** Floor grid of half metres and the rug; or the floor line and heights. */
export const Ground = memo(function Ground({ view, rug, room, ruler }: GroundProps) {
  const { width, height, scale, middle } = view;
  const step = gridStep(ruler);
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
        <Rug view={view} rug={rug} />
        <g stroke="var(--hair)" strokeWidth="0.7" opacity="0.7">
          {lines}
        </g>
        {room && <RoomWalls view={view} room={room} />}
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
          {gridMark(i, ruler)}
        </text>
      </g>,
    );
  }
  return <g aria-hidden="true">{rows}</g>;
});

function Rug({ view, rug }: Pick<GroundProps, "view" | "rug">) {
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

/** Walls, what opens off the room, and gobos, in the kit's frame. */
function RoomWalls({ view, room }: { view: View; room: Room }) {
  const line = (corners: Point2[]) =>
    path(corners.map(([x, y]) => toScreen(toKit(room, x, y), view)));
  return (
    <g>
      {room.spaces.map((s) => {
        const [x, y, u, v] = [s.x_m, s.y_m, s.x_m + s.width_m, s.y_m + s.length_m];
        const corners: Point2[] = [
          [x, y],
          [u, y],
          [u, v],
          [x, v],
        ];
        return (
          <path key={s.id} d={line(corners)} fill="none" stroke="var(--soft)" strokeWidth="2" />
        );
      })}
      {room.gobos.map((g, i) => (
        <path
          key={i}
          d={line(goboCorners(g))}
          fill="var(--room)"
          fillOpacity="0.3"
          stroke="var(--room)"
        />
      ))}
      <path
        d={line(outlineOf(room))}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="3"
        strokeOpacity="0.55"
      />
    </g>
  );
}

interface DrawingProps {
  view: View;
  layout: Layout;
  /** Without what a hand is just doing. */
  rest: Layout;
}

/** Drums, cymbals, stool and the drummer's zone, lowest first, with their names. */
export function KitDrawing({ view, layout, rest }: DrawingProps) {
  return (
    <>
      <Parts view={view} kit={layout.kit} />
      <Names {...{ view, layout, rest }} />
      <References view={view} kit={layout.kit} />
    </>
  );
}

function Names({ view, layout, rest }: DrawingProps) {
  const places = useMemo(() => namePlaces(layout, view, rest), [layout, view, rest]);
  return places.map((n) => <Name key={n.id} id={n.id} name={n.name} x={n.at[0]} y={n.at[1]} />);
}

const Parts = memo(function Parts({ view, kit }: { view: View; kit: Kit }) {
  const { stool } = kit;
  const depthOf = (p: Point3) =>
    view.facing === "above" ? p[2] : view.facing === "along" ? -p[1] : p[0];
  const turn = view.side === "drummer" || view.facing === "above" ? 1 : -1;
  const parts = [
    ...kit.drums.map((d) => ({
      id: d.id,
      at: d.batter_m,
      draw: <DrumShape drum={d} view={view} />,
    })),
    ...(kit.cymbals ?? []).map((c) => ({
      id: c.id,
      at: c.centre_m,
      draw: <CymbalShape cymbal={c} view={view} />,
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
      {parts.map((p) => (
        <g key={p.id} data-goes={partGoes(p.id)}>
          {p.draw}
        </g>
      ))}
    </g>
  );
});

interface NameProps {
  id: string;
  name: string;
  x: number;
  y: number;
}

const Name = memo(function Name({ id, name, x, y }: NameProps) {
  return (
    <text
      x={x}
      y={y + 4}
      textAnchor="middle"
      fontSize="11"
      fill="var(--soft)"
      aria-hidden="true"
      data-part-name={id}
      data-goes={partGoes(id)}
    >
      {name}
    </text>
  );
});

interface SeatProps {
  view: View;
  at: Point2;
  high: number;
  zone: number;
  top: number;
}

const Seat = memo(function Seat(props: SeatProps) {
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
          strokeOpacity="0.6"
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
});

/** The two points that the tapes are held to. */
const References = memo(function References({ view, kit }: { view: View; kit: Kit }) {
  const snare = toScreen(referenceOf(kit, "snare"), view);
  const kick = toScreen(referenceOf(kit, "kick"), view);
  const goes = (kind: "snare" | "kick") => ({ "data-goes": partGoes(firstDrum({ kit }, kind).id) });
  return (
    <g aria-hidden="true">
      <circle {...goes("snare")} cx={snare[0]} cy={snare[1]} r="4.5" fill="var(--snare)" />
      <rect
        {...goes("kick")}
        x={kick[0] - 4.5}
        y={kick[1] - 4.5}
        width="9"
        height="9"
        fill="var(--kick)"
      />
    </g>
  );
});

/** Where the tape is held on the snare or the kick. */
export function referenceOf(kit: Kit, kind: "snare" | "kick"): Point3 {
  const d = firstDrum({ kit }, kind);
  if (d.reference === "batter") return d.batter_m;
  return [0, 1, 2].map(
    (i) => (d.batter_m[i] ?? 0) - d.depth_m * (d.axis[i] ?? 0),
  ) as unknown as Point3;
}
