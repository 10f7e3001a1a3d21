/** The tapes: one measuring tape per reference drum, every mic a flag at its distance. */
import { memo, useCallback, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Board, Layout, Mic } from "../../api/types";
import { BUNCH_WIDE, flagged, roomyStep, type Spot } from "../../core/flags";
import { columnsOf, refsOf } from "../../core/reach";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { micColour } from "../../core/words";
import { useInTurn } from "../Later";
import { useSize } from "../useSize";
import { type FollowFlag, type Scale, scaleOf, stand, useFlagHand } from "./flagHand";
import { Foot } from "./frame";

interface Props {
  layout: Layout;
  board: Board;
  /** Where the whole tapes end, metres. */
  end: number;
  ruler: Ruler;
  lit: string[];
  onHover: (id: string | null) => void;
  onSelect: (id: string, extend: boolean) => void;
  /** Tells where a mic under the hand is now, oftener than the tapes are drawn anew. */
  follow: FollowFlag;
}

const ROW = 100;
const LEFT = 128;
const BAND = 54;
const FLAG = 17;

const LANE_Y = [BAND - 25, BAND + 36, BAND - 44];
const LANES = LANE_Y.length;

/** The room the tapes take, kept free before they are drawn so that the chart does not jump. */
export const TAPES_HIGH = ROW * 2 + 8;

/** The part of the tapes that is shown, metres, and the way back to all of it (null). */
function useNearer() {
  const [part, setPart] = useState<Stretch | null>(null);
  const round = useCallback((distances: readonly number[]) => {
    const [low, high] = [Math.min(...distances), Math.max(...distances)];
    const reach = Math.max(high - low, 0.1) * 1.6 + 0.1;
    const from = Math.max(0, (low + high - reach) / 2);
    setPart([from, from + reach]);
  }, []);
  return { part, round, back: () => setPart(null) };
}

/** The same as long as it shows the same, so that its tape is not drawn anew. */
function useScale(column: number, part: Stretch | null, end: number, wide: number): Scale {
  return useMemo(
    () => scaleOf(column, part ?? [0, end], LEFT, wide - LEFT - 26),
    [column, part, end, wide],
  );
}

export const Tapes = memo(function Tapes(props: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const { end, follow, ...rest } = props;
  const [snare = -1, kick = -1] = columnsOf(props.layout, props.board);
  const { part, round, back } = useNearer();
  const scales = [useScale(snare, part, end, width), useScale(kick, part, useInTurn(end), width)];
  const paper = useRef<HTMLDivElement>(null);
  useFlagHand(paper, follow, scales);
  return (
    <div ref={ref} className="relative min-w-0 px-3 contain-strict" style={{ height: TAPES_HIGH }}>
      {part && (
        <button
          type="button"
          className="btn absolute bottom-1 left-3 z-10 px-2 py-0.5 text-[0.78rem]"
          onClick={back}
        >
          Whole tape
        </button>
      )}
      {width > 0 && (
        <div ref={paper} className="relative">
          {/* A layer of its own that nothing shines through: flags on their sheets go over it. */}
          <svg
            width={width}
            height={ROW * 2}
            role="group"
            aria-label="Snare and kick tapes"
            className="block bg-panel will-change-transform"
          >
            {refsOf(props.layout).map((drum, i) => (
              <Tape
                key={drum.id}
                {...rest}
                top={i * ROW}
                wide={width}
                scale={scales[i] as Scale}
                onNear={round}
                name={i === 0 ? "Snare tape" : "Kick tape"}
                hint={hintOf(drum.kind, drum.reference)}
                colour={i === 0 ? "var(--snare)" : "var(--kick)"}
              />
            ))}
          </svg>
        </div>
      )}
    </div>
  );
});

function hintOf(kind: string, reference: string): string {
  if (reference === "front") return "centre of the front head";
  return kind === "kick" ? "beater spot" : "centre of the head";
}

type Stretch = readonly [number, number];

interface OnTape extends Spot {
  mic: Mic;
  d: number;
}

/** Every mic at its place on a tape, as far as that is shown. */
function spotsOf(layout: Layout, board: Board, column: number, x: (m: number) => number): OnTape[] {
  return layout.mics.flatMap((mic) => {
    const d = board.tape_m[board.mic_ids.indexOf(mic.id)]?.[column];
    const wide = Math.max(BUNCH_WIDE, mic.id.length * 8 + 10);
    return d === undefined ? [] : [{ id: mic.id, mic, d, x: x(d), wide }];
  });
}

const Tape = memo(function Tape(
  props: Omit<Props, "end" | "follow"> & {
    top: number;
    wide: number;
    scale: Scale;
    onNear: (distances: number[]) => void;
    name: string;
    hint: string;
    colour: string;
  },
) {
  const { top, wide, scale, colour, board, layout, ruler, lit } = props;
  const { column, from, to, x } = scale;
  const spots = spotsOf(layout, board, column, x).filter((s) => s.d >= from && s.d <= to);
  const of = props.name.split(" ")[0]?.toLowerCase();
  const said = (s: OnTape) => `${s.id}, ${lengthWithUnit(s.d, ruler)} from the ${of}`;
  return (
    <g transform={`translate(0 ${top})`}>
      <rect x="2" y={BAND - 10} width="4" height="36" fill={colour} />
      <text x="14" y={BAND + 3} fontSize="13" fontWeight="700" fill="var(--ink)">
        {props.name}
      </text>
      <text x="14" y={BAND + 18} fontSize="11" fill="var(--soft)">
        {props.hint}
      </text>
      <rect
        x={LEFT}
        y={BAND}
        width={wide - LEFT - 26}
        height="15"
        fill={colour}
        fillOpacity="0.16"
      />
      <Marks {...{ from, to, ruler }} scale={x(1) - x(0)} speed={board.speed_of_sound_m_s} />
      {flagged(spots, LANES, lit).map((f) => (
        <Flag
          key={f.spots[0]?.id}
          id={f.spots.map((s) => s.id).join(" ")}
          tape={column}
          x={f.x}
          ticks={f.spots.map((s) => s.x).join(" ")}
          wide={f.wide}
          lane={f.lane}
          on={f.spots.some((s) => lit.includes(s.id))}
          colour={f.spots[0] ? micColour(f.spots[0].mic, layout) : colour}
          said={f.spots.map(said).join("; ")}
          distances={f.spots.map((s) => s.d).join(" ")}
          onHover={props.onHover}
          onSelect={props.onSelect}
          onNear={props.onNear}
        />
      ))}
    </g>
  );
});

interface FlagProps extends Pick<Props, "onHover" | "onSelect"> {
  /** One mic, or several in a bunch. */
  id: string;
  tape: number;
  x: number;
  /** Where each of them is on the tape. */
  ticks: string;
  wide: number;
  lane: number;
  on: boolean;
  colour: string;
  said: string;
  distances: string;
  onNear: (distances: number[]) => void;
}

const Flag = memo(function Flag(props: FlagProps) {
  const { id, x, ticks, wide, lane, on, colour, onHover, onSelect } = props;
  const ids = id.split(" ");
  const several = ids.length > 1;
  const flag = useRef<SVGGElement>(null);
  useLayoutEffect(() => {
    if (flag.current) stand(flag.current, x, ticks.split(" ").map(Number));
  }, [x, ticks]);
  // A bunch opens: the tape is shown nearer round its mics.
  const press = (extend: boolean) =>
    several ? props.onNear(props.distances.split(" ").map(Number)) : onSelect(id, extend);
  return (
    <g
      ref={flag}
      role="button"
      tabIndex={several ? 0 : -1}
      aria-label={several ? `${ids.length} mics: ${props.said}. Show nearer` : props.said}
      data-flag={`${props.tape}-${id}`}
      data-bunch={several ? ids.length : undefined}
      onPointerEnter={(e) => e.buttons || onHover(ids[0] ?? null)}
      onPointerLeave={(e) => e.buttons || onHover(null)}
      onClick={(e) => press(e.shiftKey)}
      onKeyDown={(e) => e.key === "Enter" && press(e.shiftKey)}
      className="cursor-pointer"
    >
      {several && <title>{props.said}</title>}
      <FlagLook {...{ lane, wide, on, colour }} mics={ids.length} name={id} />
    </g>
  );
});

interface LookProps extends Pick<FlagProps, "lane" | "wide" | "on" | "colour"> {
  mics: number;
  name: string;
}

/** A flag as it looks wherever on the tape it stands. */
const FlagLook = memo(function FlagLook({ mics, name, ...look }: LookProps) {
  const { lane, colour, on } = look;
  const y = LANE_Y[lane] ?? 0;
  const above = lane % 2 === 0;
  const pole = { stroke: colour, strokeWidth: on ? 2.2 : 1 };
  const [from, to] = above ? [y + FLAG / 2, BAND + 15] : [BAND, y];
  return (
    <>
      {/* Its pole, and where each of its mics is on the tape. */}
      <line y1={from} y2={to} {...pole} />
      {Array.from({ length: mics }, (_, i) => (
        <line key={i} y1={BAND} y2={BAND + 15} {...pole} />
      ))}
      <FlagPlate {...look} y={y} several={mics > 1} words={mics > 1 ? `×${mics}` : name} />
    </>
  );
});

interface FlagPlateProps extends Pick<FlagProps, "wide" | "on" | "colour"> {
  y: number;
  several: boolean;
  words: string;
}

function FlagPlate({ y, wide, on, colour, several, words }: FlagPlateProps) {
  return (
    <>
      <rect
        data-plate
        x={-wide / 2}
        y={y - FLAG / 2}
        width={wide}
        height={FLAG}
        rx="3.5"
        fill={on ? colour : "var(--card)"}
        stroke={colour}
        strokeDasharray={several ? "3 2" : undefined}
      />
      <text
        y={y + 3.8}
        fontSize="10.5"
        fontWeight="700"
        textAnchor="middle"
        className="num"
        fill={on ? "var(--on)" : "var(--ink)"}
      >
        {words}
      </text>
    </>
  );
}

/** The marks of a tape in somebody's units: fine ones, named ones, and their names. */
function marksOf(ruler: Ruler) {
  const hand = ruler.hand.hand_m;
  if (ruler.units === "ft-in")
    return { fine: 0.0254 * 2, named: 0.3048, mark: (n: number) => `${n}′` };
  if (ruler.units === "hand") return { fine: hand / 5, named: hand, mark: (n: number) => `${n} h` };
  return { fine: 0.02, named: 0.2, mark: (n: number) => (n ? `${n * 20}` : "0 cm") };
}

/** Every whole number of `step` from one value to another. */
function steps(from: number, to: number, step: number): number[] {
  const first = Math.ceil(from / step - 1e-6);
  const last = Math.floor(to / step + 1e-6);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step);
}

/** A name of a mark is so wide at most, with air. */
const NAME_WIDE = 27;
/** Closer than this, fine marks are a grey band. */
const FINE_PX = 2.2;

/** Centimetres (or feet) below the tape, milliseconds above it. */
const Marks = memo(function Marks(props: {
  from: number;
  to: number;
  scale: number;
  ruler: Ruler;
  speed: number;
}) {
  const { from, to, scale, ruler, speed } = props;
  const x = (m: number) => LEFT + (m - from) * scale;
  const { fine, named, mark } = marksOf(ruler);
  const small = roomyStep(fine, scale, FINE_PX);
  const fines = steps(from, to, small).map(
    (m) => `M${x(m).toFixed(1)} ${BAND + 15}v${Math.round(m / small) % 5 ? -3.5 : -7}`,
  );
  const apart = roomyStep(named, scale, NAME_WIDE);
  const unit = speed / 1000;
  const late = roomyStep(unit, scale, NAME_WIDE + 6);
  const ms = steps(from, to, late);
  return (
    <g aria-hidden="true">
      <path d={fines.join("")} stroke="var(--ink)" strokeWidth="0.7" strokeOpacity="0.55" />
      <Foot
        at={steps(from, to, apart)}
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
      <Foot at={ms} x={x} y={BAND - 4} size={9} say={(m) => `${Math.round(m / unit)} ms`} />
    </g>
  );
});
