/** The plan from above: each mic where it was planned, where it stands, and how far that is sure. */
import type { AtKit } from "../../api/types";
import { boxOf, sketchOf } from "../../core/sketch";
import { worded } from "../../core/told";
import type { Ruler } from "../../core/units";
import { type Point2, placeTags, type Tag, type View } from "../../core/view";
import { Sketch } from "../../parts/chart/Sketch";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";

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
  const ruler: Ruler = useMe();
  const drawn = sketchOf(doc);
  const box = boxOf({ ...drawn, mics: [...drawn.mics, ...sketchOf(standing.layout).mics] });
  const dot = 0.035 * Math.max(1, box[3] / 1.9);
  // A close mic stands by its own drum: where round it, nobody measures.
  const far = new Set(doc.mics.filter((m) => m.role !== "close").map((m) => m.id));
  const measured = standing.mics.filter((m) => m.state !== "planned");
  const shown = standing.mics.filter((m) => far.has(m.mic));
  const names = namesOf(shown, box);
  return (
    <figure className="relative">
      <Sketch summary={{ ...drawn, mics: [] }} name="the kit" box={box} high="h-72" />
      <svg
        viewBox={box.join(" ")}
        className="absolute inset-0 h-72 w-full overflow-visible"
        role="img"
      >
        <title>{`Planned and as it stands: ${measured.map((m) => `${m.mic}: ${worded(m.words, ruler)}`).join(" ")}`}</title>
        {shown.map((m) => (
          <Place key={m.mic} stand={m} dot={dot} name={names.get(m.mic)} />
        ))}
      </svg>
      <figcaption className="text-[0.82rem] text-soft">
        Hollow: planned. Filled: as it stands, with the room it may be in.
      </figcaption>
    </figure>
  );
}

const HIGH_PX = 288;
const LETTER_PX = 7.5;

/** Where each name stands on the drawing, off the others and off every dot; in metres. */
function namesOf(stands: readonly Stand[], box: readonly [number, number, number, number]) {
  const [left, top, wide, high] = box;
  const px = HIGH_PX / high;
  const tags = stands.map((m): Tag => {
    const at: Point2 = [(m.position_m[0] - left) * px, (-m.position_m[1] - top) * px];
    return { id: m.mic, at, body: at, avoid: [0, 0], wide: m.mic.length * LETTER_PX };
  });
  const paper = { width: wide * px, height: HIGH_PX } as View;
  const places = placeTags(tags, paper);
  return new Map([...places].map(([id, [x, y]]) => [id, [left + x / px, top + y / px] as Point2]));
}

interface PlaceProps {
  stand: Stand;
  dot: number;
  /** Where its name stands. */
  name: Point2 | undefined;
}

function Place({ stand, dot, name }: PlaceProps) {
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
      {name && <Name words={stand.mic} at={name} of={[x, -y]} dot={dot} />}
    </g>
  );
}

/** A name with a thin line to what it names. */
function Name(props: { words: string; at: Point2; of: Point2; dot: number }) {
  const { words, at, of, dot } = props;
  return (
    <>
      <path
        d={`M${of[0]} ${of[1]}L${at[0]} ${at[1]}`}
        stroke="var(--soft)"
        strokeOpacity="0.6"
        strokeWidth={dot / 6}
      />
      <text
        x={at[0]}
        y={at[1]}
        dy="0.35em"
        textAnchor="middle"
        fontSize={dot * 2.4}
        fontWeight="700"
        fill="var(--ink)"
        stroke="var(--paper)"
        strokeWidth={dot * 0.9}
        paintOrder="stroke"
        className="num"
      >
        {words}
      </text>
    </>
  );
}
