/** The plan from above: each mic where it was planned, where it stands, and how far that is sure. */
import type { AtKit } from "../../api/types";
import { boxOf, sketchOf } from "../../core/sketch";
import { Sketch } from "../../parts/chart/Sketch";
import { useEditorPart } from "../../parts/editing";

type Stand = AtKit["standing"]["mics"][number];

/** Half axes and turn of the ellipse that holds a place 95 times in a hundred. */
export function ellipseOf(covariance: readonly (readonly number[])[]) {
  const [[a = 0, b = 0] = [], [, d = 0] = []] = covariance;
  const middle = (a + d) / 2;
  const apart = Math.hypot((a - d) / 2, b);
  const scale = Math.sqrt(CHI2_95);
  return {
    along: scale * Math.sqrt(Math.max(middle + apart, 0)),
    across: scale * Math.sqrt(Math.max(middle - apart, 0)),
    turn: (0.5 * Math.atan2(2 * b, a - d) * 180) / Math.PI,
  };
}

/** Of two degrees of freedom. */
const CHI2_95 = 5.991;

export function StandsPlan({ standing }: { standing: AtKit["standing"] }) {
  const doc = useEditorPart((s) => s.still);
  const drawn = sketchOf(doc);
  const box = boxOf({ ...drawn, mics: [...drawn.mics, ...sketchOf(standing.layout).mics] });
  const dot = 0.035 * Math.max(1, box[3] / 1.9);
  // A close mic stands by its own drum: where round it, nobody measures.
  const far = new Set(doc.mics.filter((m) => m.role !== "close").map((m) => m.id));
  const measured = standing.mics.filter((m) => m.state !== "planned");
  return (
    <figure className="relative">
      <Sketch summary={{ ...drawn, mics: [] }} name="the kit" box={box} high="h-72" />
      <svg viewBox={box.join(" ")} className="absolute inset-0 h-72 w-full" role="img">
        <title>{`Planned and as it stands: ${measured.map((m) => `${m.mic}: ${m.words}`).join(" ")}`}</title>
        {standing.mics
          .filter((m) => far.has(m.mic))
          .map((m) => (
            <Place key={m.mic} stand={m} dot={dot} />
          ))}
      </svg>
      <figcaption className="text-[0.82rem] text-soft">
        Hollow: planned. Filled: as it stands, with the room it may be in.
      </figcaption>
    </figure>
  );
}

function Place({ stand, dot }: { stand: Stand; dot: number }) {
  const [x, y] = stand.position_m;
  const [px, py] = [x - stand.off_m[0], y - stand.off_m[1]];
  const room = ellipseOf(stand.covariance_m2);
  const measured = stand.state !== "planned";
  return (
    <g data-place={stand.mic}>
      {measured && (
        <ellipse
          rx={room.along}
          ry={room.across}
          transform={`translate(${x} ${-y}) rotate(${-room.turn})`}
          fill="var(--ring)"
          fillOpacity="0.18"
          stroke="var(--ring)"
          strokeWidth={dot / 5}
        />
      )}
      <line x1={px} y1={-py} x2={x} y2={-y} stroke="var(--ink)" strokeWidth={dot / 3} />
      <circle cx={px} cy={-py} r={dot} fill="none" stroke="var(--soft)" strokeWidth={dot / 3.5} />
      {measured && <circle cx={x} cy={-y} r={dot} fill="var(--ring)" />}
      <text
        x={x + dot * 1.5}
        y={-y - dot * 1.2}
        fontSize={dot * 2.4}
        fontWeight="700"
        fill="var(--ink)"
        className="num"
      >
        {stand.mic}
      </text>
    </g>
  );
}
