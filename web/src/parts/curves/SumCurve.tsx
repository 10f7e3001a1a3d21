/** The sum of two mics over frequency, as wired and with one flipped, with the body band. */
import { memo } from "react";
import type { Focus } from "../../api/types";
import { Across, asWired, Curve, FLIPPED, Foot, Layered, Levels, Word } from "./frame";

interface Props {
  /** False while the sign is unsure: neither line is then the one as wired. */
  sure: boolean;
  focus: Focus;
  bodyLow: number;
  bodyHigh: number;
  width?: number;
  height?: number;
}

const [F0, F1] = [30, 16000];
const [TOP, BOTTOM] = [8, -30];
const LEVELS = [0, -12, -24];

const xOn = (width: number) => (f: number) => (Math.log(f / F0) / Math.log(F1 / F0)) * width;
const yOn = (height: number) => (db: number) =>
  ((TOP - Math.max(db, BOTTOM)) / (TOP - BOTTOM)) * (height - 16);

export function SumCurve({ sure, focus, bodyLow, bodyHigh, width = 250, height = 110 }: Props) {
  const axes = { xs: focus.curve_hz, x: xOn(width), y: yOn(height) };
  return (
    <Layered
      wide={width}
      high={height}
      label={`Sum of ${focus.a} and ${focus.b} over frequency, as wired and with one flipped`}
      under={<Band {...{ bodyLow, bodyHigh, width, height }} />}
      over={<Named {...{ height }} />}
    >
      <Curve {...axes} ys={focus.flipped_curve_db} {...FLIPPED} />
      <Curve {...axes} ys={focus.curve_db} {...asWired(sure)} />
    </Layered>
  );
}

/** What stands still under the lines while they follow a hand: it is not made anew for them. */
const Band = memo(function Band(
  props: Pick<Props, "bodyLow" | "bodyHigh"> & { width: number; height: number },
) {
  const { bodyLow, bodyHigh, width, height } = props;
  const [x, y] = [xOn(width), yOn(height)];
  const [from, to] = [x(Math.max(bodyLow, F0)), x(bodyHigh)];
  return (
    <>
      <rect x={from} y="0" width={Math.max(2, to - from)} height={height - 16} fill="var(--tint)" />
      <Word x={(from + to) / 2} y={height - 20} size={9}>
        body
      </Word>
      <Across at={LEVELS} y={y} to={width} />
      <Foot
        at={[100, 1000, 10000]}
        x={x}
        y={height - 3}
        size={9}
        say={(f) => (f < 1000 ? String(f) : `${f / 1000} k`)}
      />
    </>
  );
});

/** The levels' names, over the lines. */
const Named = memo(function Named({ height }: { height: number }) {
  return <Levels at={LEVELS} y={yOn(height)} />;
});

/** What the two lines are; without a mic the sign is unsure. */
export function CurveLegend({ mic }: { mic: string | null }) {
  if (!mic)
    return (
      <p className="text-[0.8rem] text-soft">
        Pushed alike or opposite: only the ear or a test take tells which line holds.
      </p>
    );
  return (
    <p className="flex gap-4 text-[0.8rem] text-soft">
      <span className="inline-flex items-center gap-1.5">
        <span className="inline-block w-5 border-t-2 border-hollow" /> as wired
      </span>
      <span className="inline-flex items-center gap-1.5">
        <span className="inline-block w-5 border-t-2 border-dashed border-ring" /> {mic} flipped
      </span>
    </p>
  );
}
