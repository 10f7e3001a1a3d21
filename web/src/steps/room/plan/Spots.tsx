/** Spots for the kit: those computed, and those tried by ear. */
import { memo } from "react";
import type { RoomBoard, SpotTried } from "../../../api/types";
import { type Point2, toScreen, type View } from "../../../core/view";

const DOTS = {
  smooth: { fill: "var(--ring)", fillOpacity: "0.75" },
  rough: { fill: "none", stroke: "var(--nomatter)", strokeWidth: "1.4" },
};

/** Every spot that was tried by computing, bigger where the low end is smoother. */
export const SpotMap = memo(function SpotMap({
  spots,
  view,
}: {
  spots: RoomBoard["spots"]["spots"] | undefined;
  view: View;
}) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {spots?.map((s) => {
        const [cx, cy] = toScreen([s.x_m, s.y_m, 0], view);
        const r = Math.max(1.5, 7 - s.roughness_db * 1.6);
        const look = s.smooth ? DOTS.smooth : DOTS.rough;
        return <circle key={`${s.x_m} ${s.y_m}`} {...{ cx, cy, r }} {...look} />;
      })}
    </g>
  );
});

/** The spots of a room tried by ear, with how they sounded. */
export const Tried = memo(function Tried(props: { tried: SpotTried[]; room: string; view: View }) {
  return (
    <g aria-hidden="true">
      {props.tried
        .filter((t) => t.room === props.room)
        .map((t) => (
          <Rated key={t.id} rating={t.rating} at={toScreen([t.x_m, t.y_m, 0], props.view)} />
        ))}
    </g>
  );
});

/** Beside the spot, which the kit may stand on. */
const BESIDE: Point2 = [-17, 17];

function Rated({ rating, at }: { rating: number; at: Point2 }) {
  const [x, y] = [at[0] + BESIDE[0], at[1] + BESIDE[1]];
  return (
    <g>
      <rect
        x={x - 9}
        y={y - 9}
        width="18"
        height="18"
        rx="4"
        fill="var(--card)"
        stroke="var(--kick)"
        strokeWidth="1.6"
      />
      <text
        x={x}
        y={y + 4}
        textAnchor="middle"
        fontSize="11"
        fontWeight="700"
        className="num"
        fill="var(--kick)"
      >
        {rating}
      </text>
    </g>
  );
}
