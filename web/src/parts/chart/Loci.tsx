/** The ring, the spheres and the four lines of the open pair. */
import { useMemo } from "react";
import type { Board, Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { type Point2, type Point3, path, runs, toScreen, type View } from "../../core/view";
import { firstDrum } from "../../core/words";
import { referenceOf } from "./Ground";

/** The ring of the open pair, the spheres where they cut the mover's height, the four lines. */
export function Loci(props: { view: View; layout: Layout; board: Board | null; ruler: Ruler }) {
  const { view, layout, board } = props;
  const focus = board?.focus;
  const points = useMemo(
    () => focus?.places?.ring.points_m.map((p) => toScreen(p, view)) ?? [],
    [focus, view],
  );
  const places = focus?.places;
  if (!places) return null;
  const anchor = micOf(layout, places.anchor);
  const mover = micOf(layout, places.mover);
  if (!anchor || !mover) return null;
  const [snare, kick] = [referenceOf(layout.kit, "snare"), referenceOf(layout.kit, "kick")];
  const line = (from: Point3, to: Point3, key: string, dashed: boolean) => {
    const [a, b] = [toScreen(from, view), toScreen(to, view)];
    const look = dashed
      ? { stroke: "var(--kick)", strokeDasharray: "4 3" }
      : { stroke: "var(--snare)" };
    return <line key={key} x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} strokeWidth="1.4" {...look} />;
  };
  return (
    <g aria-hidden="true">
      {view.facing === "above" && <SphereCuts {...props} mover={mover} />}
      {runs(places.ring.clear).map((run) => (
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
  ruler: Ruler;
  mover: Mic;
}) {
  const { view, layout, board, mover, ruler } = props;
  const stool = layout.kit.stool?.position_m;
  const taken = layout.mics.map((m) => toScreen(m.position_m, view));
  if (stool) taken.push(toScreen([...stool, 0], view));
  return (["snare", "kick"] as const).map((kind) => {
    const at = referenceOf(layout.kit, kind);
    // The number is the core's; only its circle on the drawing is worked out here.
    const row = board?.focus?.rows.find((r) => r.source === firstDrum(layout, kind).id);
    if (!row) return null;
    const reach = row.tape_a_m;
    const cut = reach ** 2 - (mover.position_m[2] - at[2]) ** 2;
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
