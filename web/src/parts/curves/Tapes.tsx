/** The tapes: one measuring tape per reference drum, every mic a flag at its distance. */
import { memo } from "react";
import type { Board, Layout } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { firstDrum, micColour } from "../../core/words";
import { useSize } from "../useSize";
import { Foot } from "./frame";

interface Props {
  layout: Layout;
  board: Board;
  ruler: Ruler;
  lit: string[];
  onHover: (id: string | null) => void;
  onSelect: (id: string, extend: boolean) => void;
}

const ROW = 100;
const LEFT = 128;
const BAND = 54;
const FLAG = 17;

/** Flags fan out: each takes the nearest free lane above or below the tape. */
function lanes(spots: { id: string; x: number; wide: number }[]) {
  const order = [0, 1, 2];
  const last = order.map(() => Number.NEGATIVE_INFINITY);
  const out = new Map<string, number>();
  for (const spot of [...spots].sort((a, b) => a.x - b.x)) {
    const free = order.find((lane) => spot.x - spot.wide / 2 > (last[lane] ?? 0) + 2);
    const lane = free ?? last.indexOf(Math.min(...last));
    last[lane] = spot.x + spot.wide / 2;
    out.set(spot.id, lane);
  }
  return out;
}

const LANE_Y = [BAND - 25, BAND + 36, BAND - 44];

/** The room the tapes take, kept free before they are drawn so that the chart does not jump. */
export const TAPES_HIGH = ROW * 2 + 8;

export function Tapes(props: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const { layout, board } = props;
  const refs = [firstDrum(layout, "snare"), firstDrum(layout, "kick")];
  const columns = refs.map((d) => board.sources.findIndex((s) => s.id === d.id));
  const far = Math.max(1.2, ...columns.flatMap((k) => board.tape_m.map((row) => row[k] ?? 0)));
  const long = Math.ceil((far + 0.05) / 0.2) * 0.2;
  return (
    <div ref={ref} className="min-w-0 px-3 contain-strict" style={{ height: TAPES_HIGH }}>
      {width > 0 && (
        // A layer of its own: numbers that follow a hand repaint it, and nothing round it.
        <svg
          width={width}
          height={ROW * 2}
          role="group"
          aria-label="Snare and kick tapes"
          className="will-change-transform"
        >
          {refs.map((drum, i) => (
            <Tape
              key={drum.id}
              {...props}
              top={i * ROW}
              wide={width}
              long={long}
              column={columns[i] ?? 0}
              name={i === 0 ? "Snare tape" : "Kick tape"}
              hint={hintOf(drum.kind, drum.reference)}
              colour={i === 0 ? "var(--snare)" : "var(--kick)"}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

function hintOf(kind: string, reference: string): string {
  if (reference === "front") return "centre of the front head";
  return kind === "kick" ? "beater spot" : "centre of the head";
}

/** Every mic at its place on a tape. */
function spotsOf(layout: Layout, board: Board, column: number, scale: number) {
  return layout.mics.flatMap((mic) => {
    const d = board.tape_m[board.mic_ids.indexOf(mic.id)]?.[column];
    const wide = Math.max(26, mic.id.length * 8 + 10);
    return d === undefined ? [] : [{ id: mic.id, mic, d, x: LEFT + d * scale, wide }];
  });
}

const Tape = memo(function Tape(
  props: Props & {
    top: number;
    wide: number;
    long: number;
    column: number;
    name: string;
    hint: string;
    colour: string;
  },
) {
  const { top, wide, long, column, colour, board, layout, ruler, lit } = props;
  const scale = (wide - LEFT - 26) / long;
  const spots = spotsOf(layout, board, column, scale);
  const lane = lanes(spots);
  const of = props.name.split(" ")[0]?.toLowerCase();
  return (
    <g transform={`translate(0 ${top})`}>
      <rect x="2" y={BAND - 10} width="4" height="36" fill={colour} />
      <text x="14" y={BAND + 3} fontSize="13" fontWeight="700" fill="var(--ink)">
        {props.name}
      </text>
      <text x="14" y={BAND + 18} fontSize="11" fill="var(--soft)">
        {props.hint}
      </text>
      <rect x={LEFT} y={BAND} width={long * scale} height="15" fill={colour} fillOpacity="0.16" />
      <Marks scale={scale} long={long} ruler={ruler} speed={board.speed_of_sound_m_s} />
      {[...spots]
        .sort((a, b) => Number(lit.includes(a.id)) - Number(lit.includes(b.id)))
        .map((s) => (
          <Flag
            key={s.id}
            id={s.id}
            tape={column}
            x={s.x}
            wide={s.wide}
            lane={lane.get(s.id) ?? 0}
            on={lit.includes(s.id)}
            colour={micColour(s.mic, layout)}
            said={`${s.id}, ${lengthWithUnit(s.d, ruler)} from the ${of}`}
            onHover={props.onHover}
            onSelect={props.onSelect}
          />
        ))}
    </g>
  );
});

interface FlagProps extends Pick<Props, "onHover" | "onSelect"> {
  id: string;
  tape: number;
  x: number;
  wide: number;
  lane: number;
  on: boolean;
  colour: string;
  said: string;
}

const Flag = memo(function Flag(props: FlagProps) {
  const { id, x, wide, lane, on, colour, onHover, onSelect } = props;
  const y = LANE_Y[lane] ?? 0;
  const above = lane % 2 === 0;
  return (
    <g
      role="button"
      tabIndex={-1}
      aria-label={props.said}
      data-flag={`${props.tape}-${id}`}
      onPointerEnter={(e) => e.buttons || onHover(id)}
      onPointerLeave={(e) => e.buttons || onHover(null)}
      onClick={(e) => onSelect(id, e.shiftKey)}
      onKeyDown={(e) => e.key === "Enter" && onSelect(id, e.shiftKey)}
      className="cursor-pointer"
    >
      <line
        x1={x}
        x2={x}
        y1={above ? y + FLAG / 2 : BAND}
        y2={above ? BAND + 15 : y}
        stroke={colour}
        strokeWidth={on ? 2.2 : 1}
      />
      <rect
        x={x - wide / 2}
        y={y - FLAG / 2}
        width={wide}
        height={FLAG}
        rx="3.5"
        fill={on ? colour : "var(--card)"}
        stroke={colour}
      />
      <text
        x={x}
        y={y + 3.8}
        fontSize="10.5"
        fontWeight="700"
        textAnchor="middle"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {id}
      </text>
    </g>
  );
});

/** The marks of a tape in somebody's units: fine ones, named ones, and their names. */
function marksOf(ruler: Ruler) {
  const hand = ruler.hand.hand_m;
  if (ruler.units === "ft-in")
    return { fine: 0.0254 * 2, named: 0.3048, mark: (n: number) => `${n}′` };
  if (ruler.units === "hand") return { fine: hand / 5, named: hand, mark: (n: number) => `${n} h` };
  return { fine: 0.02, named: 0.2, mark: (n: number) => (n ? `${n * 20}` : "0 cm") };
}

/** Every whole number of `step` up to `long`. */
const steps = (long: number, step: number) =>
  Array.from({ length: Math.floor(long / step + 1e-6) + 1 }, (_, i) => i * step);

/** Centimetres (or feet) below the tape, milliseconds above it. */
const Marks = memo(function Marks(props: {
  scale: number;
  long: number;
  ruler: Ruler;
  speed: number;
}) {
  const { scale, long, ruler, speed } = props;
  const x = (m: number) => LEFT + m * scale;
  const { fine, named, mark } = marksOf(ruler);
  const fines = steps(long, fine).map(
    (m, i) => `M${x(m).toFixed(1)} ${BAND + 15}v${i % 5 ? -3.5 : -7}`,
  );
  const ms = steps(long, speed / 1000);
  return (
    <g aria-hidden="true">
      <path d={fines.join("")} stroke="var(--ink)" strokeWidth="0.7" strokeOpacity="0.55" />
      <Foot
        at={steps(long, named)}
        x={x}
        y={BAND + 25}
        size={9.5}
        say={(m) => mark(Math.round(m / named))}
      />
      <path
        d={ms.map((m) => `M${x(m).toFixed(1)} ${BAND}v5`).join("")}
        stroke="var(--ink)"
        strokeOpacity="0.55"
      />
      <Foot at={ms} x={x} y={BAND - 4} size={9} say={(_, i) => `${i} ms`} />
    </g>
  );
});
