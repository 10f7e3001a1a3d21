/** What belongs to the open pair: the ring, the spheres and the four lines. */
import { memo } from "react";
import type { Board, Layout } from "../../api/types";
import { micOf } from "../../core/edits";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { type Point2, path, runs, toScreen, type View } from "../../core/view";
import { firstDrum } from "../../core/words";
import { referenceOf } from "./Ground";

type RingShape = NonNullable<NonNullable<Board["focus"]>["places"]>["ring"];

export interface PairPlaces {
  anchor: string;
  mover: string;
  ring: RingShape;
  /** From the anchor to both drums by tape, and the mover's height, metres. */
  snare_m: number;
  kick_m: number;
  height_m: number;
}

/** What is drawn of the open pair; null where its two are not kept equal. */
export function placesOf(board: Board | null, layout: Layout): PairPlaces | null {
  const focus = board?.focus;
  const mover = focus?.places && micOf(layout, focus.places.mover);
  if (!focus?.places || !mover || !micOf(layout, focus.places.anchor)) return null;
  const far = (kind: "snare" | "kick") => {
    const drum = firstDrum(layout, kind).id;
    return focus.rows.find((r) => r.source === drum)?.tape_a_m ?? 0;
  };
  const { anchor, ring } = focus.places;
  const [snare_m, kick_m] = [far("snare"), far("kick")];
  return { anchor, mover: mover.id, ring, snare_m, kick_m, height_m: mover.position_m[2] };
}

interface Props {
  view: View;
  layout: Layout;
  places: PairPlaces | null;
}

/** The ring of the open pair, and the spheres where they cut the height of the mic that moves. */
export function Loci({ places, ...rest }: Props & { ruler: Ruler }) {
  if (!places) return null;
  return (
    <g>
      {rest.view.facing === "above" && <SphereCuts {...rest} places={places} />}
      <Ring ring={places.ring} view={rest.view} />
    </g>
  );
}

const Ring = memo(function Ring({ ring, view }: { ring: RingShape; view: View }) {
  const points = ring.points_m.map((p) => toScreen(p, view));
  return runs(ring.clear).map((run) => (
    <path
      key={run.from}
      d={path(points.slice(run.from, run.to + 1), false)}
      fill="none"
      stroke="var(--ring)"
      strokeWidth={run.on ? 2.8 : 1.4}
      strokeDasharray={run.on ? undefined : "3 4"}
      strokeOpacity={run.on ? 1 : 0.7}
    />
  ));
});

/** From both mics of the open pair to snare and kick. */
export const PairLines = memo(function PairLines({ view, layout, places }: Props) {
  const anchor = places && micOf(layout, places.anchor);
  const mover = places && micOf(layout, places.mover);
  if (!anchor || !mover) return null;
  const { kit } = layout;
  const to = { snare: referenceOf(kit, "snare"), kick: referenceOf(kit, "kick") };
  return (["snare", "kick"] as const).flatMap((kind) =>
    [anchor, mover].map((mic) => {
      const [a, b] = [toScreen(mic.position_m, view), toScreen(to[kind], view)];
      return (
        <line
          key={`${kind} ${mic.id}`}
          data-from={mic.id}
          x1={a[0]}
          y1={a[1]}
          x2={b[0]}
          y2={b[1]}
          strokeWidth="1.4"
          stroke={kind === "snare" ? "var(--snare)" : "var(--kick)"}
          strokeDasharray={kind === "kick" ? "4 3" : undefined}
        />
      );
    }),
  );
});

/**
 * Where the anchor's snare and kick spheres cut the height of the mic that moves: two circles
 * whose crossings are the equal spots at that height.
 */
function SphereCuts(props: { view: View; layout: Layout; places: PairPlaces; ruler: Ruler }) {
  const { view, layout, places, ruler } = props;
  const stool = layout.kit.stool?.position_m;
  const taken = layout.mics.map((m) => toScreen(m.position_m, view));
  if (stool) taken.push(toScreen([...stool, 0], view));
  return (["snare", "kick"] as const).map((kind) => {
    const at = referenceOf(layout.kit, kind);
    // The number is the core's; only its circle on the drawing is worked out here.
    const reach = kind === "snare" ? places.snare_m : places.kick_m;
    const cut = reach ** 2 - (places.height_m - at[2]) ** 2;
    if (cut <= 0) return null;
    const [x, y] = toScreen(at, view);
    const r = Math.sqrt(cut) * view.scale;
    const colour = kind === "snare" ? "var(--snare)" : "var(--kick)";
    const angle = freeAngle([x, y], r, view, taken);
    taken.push([x + r * Math.cos(angle), y + r * Math.sin(angle)]);
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
          strokeOpacity="0.75"
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
          {lengthWithUnit(reach, ruler)}
        </text>
      </g>
    );
  });
}

const AROUND = Array.from({ length: 24 }, (_, i) => (i / 24) * 2 * Math.PI);

/** Where on a circle a number stands furthest from what is drawn, and within the drawing. */
function freeAngle(centre: Point2, r: number, view: View, taken: readonly Point2[]): number {
  let [best, most] = [0, Number.NEGATIVE_INFINITY];
  for (const angle of AROUND) {
    const [x, y] = [centre[0] + r * Math.cos(angle), centre[1] + r * Math.sin(angle)];
    const inside = x > 35 && x < view.width - 35 && y > 15 && y < view.height - 15;
    const room = Math.min(...taken.map((p) => Math.hypot((p[0] - x) * 0.7, p[1] - y)), 90);
    if (inside && room > most) [best, most] = [angle, room];
  }
  return best;
}
