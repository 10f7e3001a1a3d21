/** The open pair as the newest take has it, and as it stands by the tape, beside the plan. */
import { heardOn } from "../../../core/heard";
import { dbText, sumText } from "../../../core/units";
import { VerdictWord } from "../../../parts/Mark";
import { useLastHeard } from "../data";

interface Props {
  a: string;
  b: string;
  source: string;
}

export function AsRecorded({ a, b, source }: Props) {
  const data = useLastHeard();
  const heard = heardOn(data, a, b, source);
  if (!data || !heard) return null;
  const [body = 0, attack = 0] = heard.wired_db;
  return (
    <div data-recorded={heard.measured} className="mt-1.5 border-b border-hair pb-1 text-[0.85rem]">
      <p className="flex flex-wrap items-center gap-x-1.5">
        <span className="text-soft">As recorded, {data.name}:</span>
        <VerdictWord verdict={heard.measured} />
        {heard.stands && heard.stands !== heard.measured && (
          <>
            <span className="text-soft">; by the tape:</span> <VerdictWord verdict={heard.stands} />
          </>
        )}
      </p>
      <p className="num text-[0.8rem] text-soft">
        body {sumText(body)} dB, flipped {sumText(heard.flipped_db[0] ?? 0)}; attack{" "}
        {dbText(attack)}
        {heard.delay_ms !== null &&
          `; ${Math.abs(heard.delay_ms).toFixed(2)} ms apart ± ${(heard.interval_ms ?? 0).toFixed(2)}`}
      </p>
      {!data.current && (
        <p className="text-[0.8rem] text-latetext">The layout was changed since.</p>
      )}
      {heard.why && <p className="text-[0.8rem] text-latetext">{heard.why}</p>}
    </div>
  );
}
