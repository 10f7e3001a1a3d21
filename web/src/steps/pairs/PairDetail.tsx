/** One pair on one drum: the numbers, the sum, flip or leave on purpose, with side effects. */
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import type { Focus, PairRow } from "../../api/types";
import { decided, decisionOn, micOf, undecided, withMic } from "../../core/edits";
import { dbText, lengthText, msText, type Ruler } from "../../core/units";
import { bodySums, sourceName } from "../../core/words";
import { Ask } from "../../parts/Ask";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { VerdictWord } from "../../parts/Mark";
import { MicTag } from "../../parts/MicTag";
import { useMe } from "../../parts/me";
import { CurveLegend, SumCurve } from "../../parts/SumCurve";
import { Why } from "../../parts/Why";

export function PairDetail({ focus }: { focus: Focus }) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const go = useNavigate();
  const [leaving, setLeaving] = useState(false);
  const [a, b] = [micOf(doc, focus.a), micOf(doc, focus.b)];
  const row = focus.rows.find((r) => r.source === focus.source) as PairRow;
  const band = board?.sources.find((s) => s.id === focus.source);
  if (!a || !b) return null;
  const flip = focus.flips[0];
  const flipMic = flip ? micOf(doc, flip.mic) : undefined;
  const key = { a: a.id, b: b.id, source: focus.source };
  const decision = decisionOn(doc, key);
  const later = row.delay_s > 0 ? a : b;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const reason = String(new FormData(e.currentTarget).get("reason")).trim();
    setLeaving(false);
    if (reason) editor.commit(decided(doc, key, reason), `Left ${a.id} and ${b.id} on purpose`);
  };
  return (
    <section
      className="grid grid-cols-[1.15fr_1fr_230px] gap-6 p-4"
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
            onChange={(e) => editor.open({ anchor: a.id, mover: b.id, source: e.target.value })}
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
        </div>
        <p className="mt-1.5 min-h-10 text-[0.92rem]">{row.words}</p>
        <dl className="mt-1 grid grid-cols-4 gap-3 max-[1100px]:grid-cols-2">
          <Big
            value={lengthText(row.tape_a_m, ruler)}
            name={`${ruler.units === "cm" ? "cm, " : ""}${a.id} by tape`}
          />
          <Big
            value={lengthText(row.tape_b_m, ruler)}
            name={`${ruler.units === "cm" ? "cm, " : ""}${b.id}, ${msText(Math.abs(row.delay_s))} ms ${row.delay_s >= 0 ? "later" : "sooner"}`}
          />
          {bodySums(row).map((s) => (
            <Big key={s.name} value={dbText(s.db)} name={`dB of ${s.name}`} />
          ))}
        </dl>
      </div>
      <div className="min-w-0">
        <SumCurve
          sure={row.sign !== 0}
          focus={focus}
          bodyLow={band?.body_low_hz ?? 50}
          bodyHigh={band?.body_high_hz ?? 100}
          width={340}
          height={104}
        />
        <CurveLegend mic={row.sign === 0 ? null : (flipMic?.id ?? b.id)} />
        <p className="mt-1 text-[0.83rem] text-soft">
          To align after recording: delay {later.id} by {Math.abs(row.delay_samples).toFixed(1)}{" "}
          samples.
        </p>
        <Why focus={focus} />
      </div>
      <div className="space-y-2">
        {flip && flipMic && (
          <>
            <button
              type="button"
              className="btn-main w-full"
              onClick={() =>
                editor.commit(
                  withMic(doc, flipMic.id, { preamp_flip: !flipMic.preamp_flip }),
                  `${flipMic.preamp_flip ? "Unflipped" : "Flipped"} ${flipMic.id}`,
                )
              }
            >
              {flipMic.preamp_flip
                ? `Take ${flipMic.id}'s flip off`
                : `Flip ${flipMic.id} at the preamp`}
            </button>
            <p className="text-[0.8rem] text-soft" data-flip-effect={flip.mic}>
              Hollow pairs {flip.hollow_before} → {flip.hollow_after}.
              {flip.cures.length > 0 && ` Cures ${flip.cures.join(", ")}.`}
              {flip.spoils.length > 0 && ` Spoils ${flip.spoils.join(", ")}.`}
            </p>
          </>
        )}
        <button
          type="button"
          className="btn w-full"
          onClick={() => {
            lit.select(b.id);
            editor.open({ anchor: a.id, mover: b.id, source: focus.source });
            go("../place");
          }}
        >
          Move {b.id}
        </button>
        {decision ? (
          <div className="text-[0.85rem]">
            <p>
              Left on purpose: {decision.reason}{" "}
              <span className="text-soft">
                {decision.by} {decision.at?.slice(0, 10)}
              </span>
            </p>
            <button
              type="button"
              className="font-semibold text-snare underline"
              onClick={() => editor.commit(undecided(doc, key), "Took a decision back")}
            >
              Take it back
            </button>
          </div>
        ) : (
          <button type="button" className="btn w-full" onClick={() => setLeaving(true)}>
            Leave, and say why
          </button>
        )}
      </div>
      <Ask
        open={leaving}
        onClose={() => setLeaving(false)}
        title={`Leave ${a.id} and ${b.id} as they are`}
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
    </section>
  );
}

function Big({ value, name }: { value: string; name: string }) {
  return (
    <div className="flex flex-col-reverse justify-end">
      <dt className="text-[0.8rem] text-soft">{name}</dt>
      <dd className="num text-[1.55rem] leading-tight font-bold">{value}</dd>
    </div>
  );
}
