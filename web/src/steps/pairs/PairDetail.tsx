/** One pair on one drum: the numbers, the sum, flip or leave on purpose, with side effects. */
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import type { Focus, PairDepth, PairRow, Remedy } from "../../api/types";
import { decided, decisionOn, micOf, undecided } from "../../core/edits";
import { dbText, lengthText, lengthWithUnit, msText, type Ruler } from "../../core/units";
import { bodySums, sourceName } from "../../core/words";
import { Ask } from "../../parts/Ask";
import { DelayChart } from "../../parts/DelayChart";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { VerdictWord } from "../../parts/Mark";
import { MicTag } from "../../parts/MicTag";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { CurveLegend, SumCurve } from "../../parts/SumCurve";
import { Why } from "../../parts/Why";
import { useDepth } from "./data";
import { HearIt } from "./HearIt";
import { Remedies, School } from "./Remedies";

interface Props {
  focus: Focus;
  tried: Remedy | null;
  onTry: (r: Remedy | null) => void;
  onTake: (r: Remedy) => void;
}

type Chart = "frequency" | "delay";

export function PairDetail({ focus, tried, onTry, onTake }: Props) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const go = useNavigate();
  const [chart, setChart] = useState<Chart>("frequency");
  const depth = useDepth(focus);
  const [a, b] = [micOf(doc, focus.a), micOf(doc, focus.b)];
  const row = focus.rows.find((r) => r.source === focus.source) as PairRow;
  const band = board?.sources.find((s) => s.id === focus.source);
  if (!a || !b || !board) return null;
  const deep = depth.data;
  return (
    <section
      className="grid h-full grid-cols-[1.1fr_1fr_1.15fr] *:overflow-y-auto *:px-3 *:py-2.5"
      aria-label={`Pair ${a.id} with ${b.id}`}
    >
      <div className="min-w-0">
        <div className="flex flex-wrap items-center gap-2">
          <MicTag mic={a} layout={doc} lit />
          <span className="text-soft">with</span>
          <MicTag mic={b} layout={doc} lit />
          <select
            className="field py-0.5"
            aria-label="Drum of this pair"
            value={focus.source}
            onChange={(e) => {
              onTry(null);
              editor.open({ anchor: a.id, mover: b.id, source: e.target.value });
            }}
          >
            {focus.rows.map((r) => (
              <option key={r.source} value={r.source}>
                {sourceName(doc, r.source)}: {r.verdict}
              </option>
            ))}
          </select>
          <span data-pair-verdict={row.verdict}>
            <VerdictWord verdict={row.verdict} />
          </span>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.78rem]"
            title="The second is the one that rather moves"
            onClick={() => editor.open({ anchor: b.id, mover: a.id, source: focus.source })}
          >
            Other way round
          </button>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.78rem]"
            title="More room for the grid"
            onClick={() => {
              onTry(null);
              editor.open(null);
            }}
          >
            Put away
          </button>
        </div>
        <p className="mt-1.5 text-[0.92rem]">{row.words}</p>
        {row.could_tip && (
          <p className="text-[0.85rem] font-semibold text-latetext" data-could-tip={row.could_tip}>
            Could tip to {row.could_tip}: {msText(Math.abs(row.delay_s))} ± {msText(row.interval_s)}{" "}
            ms.
          </p>
        )}
        <dl className="mt-1.5 grid grid-cols-4 gap-3 max-[1100px]:grid-cols-2">
          <Big
            value={lengthText(row.tape_a_m, ruler)}
            name={`${ruler.units === "cm" ? "cm, " : ""}${a.id} by tape`}
            more={row.path_differs_a ? `${lengthWithUnit(row.path_a_m, ruler)} by air` : ""}
          />
          <Big
            value={lengthText(row.tape_b_m, ruler)}
            name={`${ruler.units === "cm" ? "cm, " : ""}${b.id} by tape`}
            more={row.path_differs_b ? `${lengthWithUnit(row.path_b_m, ruler)} by air` : ""}
          />
          {bodySums(row).map((s) => (
            <Big key={s.name} value={dbText(s.db)} name={`dB of ${s.name}`} />
          ))}
        </dl>
        <p className="mt-1.5 text-[0.85rem]">
          {b.id} <b className="num">{msText(Math.abs(row.delay_s))}</b>{" "}
          <span className="num text-soft" title="Tape, air and strike: 95 in 100">
            ±{msText(row.interval_s)}
          </span>{" "}
          ms {row.delay_s >= 0 ? "later" : "sooner"},{" "}
          <span className="num">{Math.abs(row.delay_samples).toFixed(1)}</span> samples;{" "}
          <span className="num">{dbText(row.level_difference_db)}</span> dB after gain.
        </p>
        {deep && !tried && <Bands depth={deep} sure={row.sign !== 0} />}
      </div>
      <div className="min-w-0">
        <Segmented
          small
          label="Chart of the sum"
          value={chart}
          options={[
            ["frequency", "Over frequency"],
            ["delay", "Body over delay"],
          ]}
          onTake={setChart}
        />
        <div className="mt-1.5">
          {chart === "frequency" ? (
            <SumCurve
              sure={row.sign !== 0}
              focus={focus}
              bodyLow={band?.body_low_hz ?? 50}
              bodyHigh={band?.body_high_hz ?? 100}
              width={340}
              height={124}
            />
          ) : (
            deep && (
              <DelayChart
                curve={deep.by_delay}
                mover={b.id}
                speed={board.speed_of_sound_m_s}
                ruler={ruler}
                sure={row.sign !== 0}
              />
            )
          )}
        </div>
        <CurveLegend mic={row.sign === 0 ? null : b.id} />
        {deep && (
          <p className="mt-1 text-[0.85rem] font-semibold" data-delay-words>
            {tried ? "As it would be; not saved." : deep.by_delay.words}
          </p>
        )}
        <Why focus={focus} />
      </div>
      <div className="min-w-0 space-y-2">
        <div className="flex flex-wrap items-center gap-2">
          <h3 className="text-[1rem]">What to do</h3>
          {deep && (
            <School
              value={deep.school}
              onTake={(timing) => editor.commit({ ...doc, timing }, `Chose the school: ${timing}`)}
            />
          )}
        </div>
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn px-2.5 py-1 text-[0.84rem]"
            onClick={() => {
              lit.select(b.id);
              editor.open({ anchor: a.id, mover: b.id, source: focus.source });
              go("../place");
            }}
          >
            Move {b.id}
          </button>
          <HearIt row={row} drum={sourceName(doc, row.source)} />
          <Leaving row={row} />
        </div>
        {depth.error && <p role="alert">{depth.error.message}</p>}
        {deep ? (
          <>
            <p className="text-[0.85rem]" data-remedy-words>
              {deep.words}
            </p>
            <Remedies depth={deep} tried={tried} onTry={onTry} onTake={onTake} />
          </>
        ) : (
          !depth.error && <p className="text-[0.85rem] text-soft">Trying every remedy…</p>
        )}
      </div>
    </section>
  );
}

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
            <th
              key={r.band}
              scope="col"
              className="pr-4 text-right font-semibold"
              title={`${r.low_hz.toFixed(0)} to ${r.high_hz.toFixed(0)} Hz`}
            >
              {r.band}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {(["wired_db", "flipped_db"] as const).map((way) => (
          <tr key={way}>
            <th scope="row" className="pr-3 text-left font-normal text-soft">
              {sure
                ? way === "wired_db"
                  ? "as wired"
                  : "one flipped"
                : way === "wired_db"
                  ? "one way"
                  : "the other"}
            </th>
            {depth.bands.map((r) => (
              <td key={r.band} className="num pr-4 text-right" data-band={`${r.band} ${way}`}>
                {dbText(r[way])}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Leaving a pair on purpose: with a reason, what it stood at, who and when; flagged when it moves. */
function Leaving({ row }: { row: PairRow }) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const flags = useEditorPart((s) => s.board?.decisions);
  const [leaving, setLeaving] = useState(false);
  const key = { a: row.a, b: row.b, source: row.source };
  const decision = decisionOn(doc, key);
  const flag = flags?.find(
    (f) => decision && f.a === decision.a && f.b === decision.b && f.source === decision.source,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const reason = String(new FormData(e.currentTarget).get("reason")).trim();
    setLeaving(false);
    if (reason) leave(reason);
  };
  const leave = (reason: string) => {
    const stood = { verdict: row.verdict, delay_s: row.delay_s, body_db: row.body_db };
    editor.commit(decided(doc, key, reason, stood), `Left ${row.a} and ${row.b} on purpose`);
  };
  if (decision)
    return (
      <div className="text-[0.85rem]">
        <p>
          Left on purpose: {decision.reason}{" "}
          <span className="text-soft">
            {decision.by} {decision.at?.slice(0, 10)}
          </span>
        </p>
        {flag?.stale && (
          <p className="font-semibold text-latetext" data-stale>
            {flag.words}{" "}
            <button
              type="button"
              className="text-snare underline"
              onClick={() => leave(decision.reason)}
            >
              It still holds
            </button>
          </p>
        )}
        <button
          type="button"
          className="font-semibold text-snare underline"
          onClick={() => editor.commit(undecided(doc, key), "Took a decision back")}
        >
          Take it back
        </button>
      </div>
    );
  return (
    <>
      <button
        type="button"
        className="btn px-2.5 py-1 text-[0.84rem]"
        onClick={() => setLeaving(true)}
      >
        Leave, and say why
      </button>
      <Ask
        open={leaving}
        onClose={() => setLeaving(false)}
        title={`Leave ${row.a} and ${row.b} as they are`}
        about="Say why, so that nobody mends it tomorrow."
      >
        <form onSubmit={submit} className="space-y-3">
          <label className="block">
            <span className="text-soft">Reason</span>
            <textarea name="reason" required maxLength={400} rows={3} className="field w-full" />
          </label>
          <button type="submit" className="btn-main w-full">
            Leave it on purpose
          </button>
        </form>
      </Ask>
    </>
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
