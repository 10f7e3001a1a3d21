/** The numbers of a pair on a drum, biggest first, and how sure they are. */
import type { PairDepth, PairRow } from "../../../api/types";
import {
  dbText,
  lengthText,
  lengthWithUnit,
  msText,
  type Ruler,
  sumText,
} from "../../../core/units";
import { bodySums } from "../../../core/words";
import { Told } from "../../../parts/fields/Hint";
import { useMe } from "../../../parts/me";

export function Numbers({ row, depth }: { row: PairRow; depth: PairDepth | undefined }) {
  return (
    <>
      <p className="mt-1.5 text-[0.92rem]">{row.words}</p>
      {row.could_tip && (
        <p className="text-[0.85rem] font-semibold text-latetext" data-could-tip={row.could_tip}>
          Could tip to {row.could_tip}: {msText(Math.abs(row.delay_s))} ± {msText(row.interval_s)}{" "}
          ms.
        </p>
      )}
      <BigNumbers row={row} />
      <p className="mt-1.5 text-[0.85rem]">
        {row.b} <b className="num">{msText(Math.abs(row.delay_s))}</b>{" "}
        <Told words="Tape, air and strike: 95 in 100" className="num text-soft">
          ±{msText(row.interval_s)}
        </Told>{" "}
        ms {row.delay_s >= 0 ? "later" : "sooner"},{" "}
        <span className="num">{Math.abs(row.delay_samples).toFixed(1)}</span> samples;{" "}
        <span className="num">{dbText(row.level_difference_db)}</span> dB after gain.
      </p>
      {depth && <Bands depth={depth} sure={row.sign !== 0} />}
    </>
  );
}

function BigNumbers({ row }: { row: PairRow }) {
  const ruler: Ruler = useMe();
  const mics = [
    [row.a, row.tape_a_m, row.path_differs_a, row.path_a_m],
    [row.b, row.tape_b_m, row.path_differs_b, row.path_b_m],
  ] as const;
  return (
    <dl className="mt-1.5 grid grid-cols-4 gap-3 max-[1100px]:grid-cols-2">
      {mics.map(([id, tape, differs, path]) => (
        <Big
          key={id}
          value={lengthText(tape, ruler)}
          name={`${ruler.units === "cm" ? "cm, " : ""}${id} by tape`}
          more={differs ? `${lengthWithUnit(path, ruler)} by air` : ""}
        />
      ))}
      {bodySums(row).map((s) => (
        <Big key={s.name} value={sumText(s.db)} name={`dB of ${s.name}`} />
      ))}
    </dl>
  );
}

function Big({ value, name, more = "" }: { value: string; name: string; more?: string }) {
  return (
    <div className="flex flex-col-reverse justify-end">
      <dt className="text-[0.8rem] text-soft">
        {name}
        {more && <span className="num block font-semibold text-ink">{more}</span>}
      </dt>
      <dd className="num text-[1.4rem] leading-tight font-bold">{value}</dd>
    </div>
  );
}

const WAYS = ["wired_db", "flipped_db"] as const;
const wayName = (way: (typeof WAYS)[number], sure: boolean) =>
  way === "wired_db" ? (sure ? "as wired" : "one way") : sure ? "one flipped" : "the other";

/** Body, attack and air of the sum, as wired and flipped. */
function Bands({ depth, sure }: { depth: PairDepth; sure: boolean }) {
  return (
    <table className="mt-1.5 text-[0.82rem]">
      <caption className="sr-only">The sum by band, against the louder mic alone</caption>
      <thead className="text-soft">
        <tr>
          <th scope="col" className="pr-3 text-left font-normal">
            dB by band
          </th>
          {depth.bands.map((r) => (
            <th key={r.band} scope="col" className="pr-4 text-right font-semibold">
              <Told words={`${r.low_hz.toFixed(0)} to ${r.high_hz.toFixed(0)} Hz`}>{r.band}</Told>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {WAYS.map((way) => (
          <tr key={way}>
            <th scope="row" className="pr-3 text-left font-normal text-soft">
              {wayName(way, sure)}
            </th>
            {depth.bands.map((r) => (
              <td key={r.band} className="num pr-4 text-right" data-band={`${r.band} ${way}`}>
                {sumText(r[way])}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
