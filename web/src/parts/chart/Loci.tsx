/** What belongs to the open pair: the ring, the spheres and the four lines. */
import { memo } from "react";
import type { Layout } from "../../api/types";
import { micOf } from "../../core/edits";
import type { Ruler } from "../../core/units";
import { path, runs, toScreen, type View } from "../../core/view";
import { cutsOf, type PairPlaces, type RingShape } from "./cuts";
import { referenceOf } from "./Ground";

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
function SphereCuts(props: Props & { ruler: Ruler }) {
  return cutsOf(props).map(({ kind, centre, r, at, said }) => {
    const colour = kind === "snare" ? "var(--snare)" : "var(--kick)";
    return (
      <g key={kind}>
        <circle
          cx={centre[0]}
          cy={centre[1]}
          r={r}
          fill="none"
          stroke={colour}
          strokeWidth="1"
          strokeDasharray="2 6"
          strokeOpacity="0.75"
        />
        <text
          x={at[0]}
          y={at[1] + 4}
          fontSize="10"
          className="num"
          fill={colour}
          textAnchor="middle"
          stroke="var(--paper)"
          strokeWidth="3"
          paintOrder="stroke"
          data-cut={kind}
        >
          {said}
        </text>
      </g>
    );
  });
}
