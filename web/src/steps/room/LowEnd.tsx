/**
 * The low end where the kit stands, drawn and in numbers. Under a hand the curves and the numbers
 * follow each in a frame of its own, and at the pace at which they can be read.
 */
import { memo } from "react";
import type { RoomBoard, SpotHere } from "../../api/types";
import { NUMBERS_MS } from "../../core/calm";
import { nearest } from "../../core/curves";
import { dbText } from "../../core/units";
import { LowEndCurve, LowEndPaper } from "../../parts/curves/RoomCharts";
import { useCalmShared } from "../../parts/editing";
import type { HandHere } from "./useHere";

export const HALVES =
  "grid h-full min-h-0 grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-5 px-4 pb-2 narrow:h-auto narrow:grid-cols-[minmax(0,1fr)]";

interface Props {
  spots: RoomBoard["spots"];
  hand: HandHere;
}

/** Where the hand has the kit, else where it is kept. */
const useLowEnd = ({ spots, hand }: Props, least?: number): SpotHere =>
  useCalmShared(hand, least)?.here ?? spots.here;

export const LowEnd = memo(function LowEnd(props: Props) {
  return (
    <div className={HALVES}>
      <LowEndPaper>
        <Curves {...props} />
      </LowEndPaper>
      <div className="min-h-0 overflow-y-auto text-[0.88rem]">
        <p>
          What walls, floor and ceiling do to <b className="text-kick">kick</b> (drawn through),{" "}
          <b className="text-snare">snare</b> (dashed) and a source at{" "}
          <b className="text-ring">overhead height</b> (dotted) here, dB against open air.
        </p>
        <Numbers {...props} />
        <p className="mt-1 text-[0.78rem] text-soft">
          Images of the source in the surfaces round it (Waterhouse 1958); furniture and people are
          not in it. The ear decides.
        </p>
      </div>
    </div>
  );
});

function Curves(props: Props) {
  const { curves } = useLowEnd(props);
  return Object.entries(curves).map(([name, db]) => (
    <LowEndCurve key={name} name={name} hz={props.spots.frequency_hz} db={db} />
  ));
}

function Numbers(props: Props) {
  const here = useLowEnd(props, NUMBERS_MS);
  return (
    <>
      <Sways {...props.spots} here={here} />
      <LowTable hz={props.spots.frequency_hz} curves={here.curves} />
    </>
  );
}

function Sways({ here: { roughness_db }, smoothest_db }: Props["spots"]) {
  if (roughness_db === null) return null;
  return (
    <p className="mt-1">
      It sways by{" "}
      <strong className="num" data-rough>
        {roughness_db.toFixed(1)} dB
      </strong>{" "}
      here
      {smoothest_db !== null && (
        <>
          , by <span className="num">{smoothest_db.toFixed(1)} dB</span> at the smoothest spot
        </>
      )}
      .
    </p>
  );
}

const OCTAVES = [40, 63, 100, 160, 250];

/** The three curves at five frequencies. */
function LowTable({ hz, curves }: { hz: number[]; curves: SpotHere["curves"] }) {
  const at = OCTAVES.map((octave) => nearest(hz, octave));
  return (
    <table className="mt-1 w-full table-fixed text-[0.85rem]">
      <caption className="sr-only">Boundary response where the kit stands, dB</caption>
      <thead className="text-left text-soft">
        <tr>
          <th className="w-[26%] font-normal">dB at Hz</th>
          {OCTAVES.map((octave) => (
            <th key={octave} className="num font-normal">
              {octave}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Object.entries(curves).map(([name, db]) => (
          <tr key={name}>
            <th scope="row" className="text-left font-normal">
              {name}
            </th>
            {at.map((i) => (
              <td key={i} className="num">
                {dbText(db[i] ?? 0)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
