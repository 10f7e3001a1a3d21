/** The sum of the two mics on one drum: its curve, its first dip, its body. */
import { memo } from "react";
import type { Focus } from "../../../api/types";
import { sameParts } from "../../../core/same";
import { dipText, sumText } from "../../../core/units";
import { bodySums } from "../../../core/words";
import { SumCurve } from "../../../parts/curves/SumCurve";
import { useCalmPart, useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useInTurn } from "../../../parts/Later";
import { VerdictWord } from "../../../parts/Mark";

/** What is drawn and said of the sum: nothing of the distances, which follow each move. */
function summed(focus: Focus | null | undefined) {
  const open = focus?.rows.find((r) => r.source === focus.source);
  if (!focus || !open) return null;
  const { tape_a_m, tape_b_m, tape_difference_m, delay_s, ...said } = open;
  const { rows, places, ...drawn } = focus;
  return { ...said, ...drawn };
}

const alike = (before: Focus | null | undefined, now: Focus | null | undefined) =>
  sameParts(summed(before), summed(now));

export function Summed() {
  const focus = useInTurn(useCalmPart((s) => s.board?.focus, alike));
  const open = focus?.rows.find((r) => r.source === focus.source);
  const band = useEditorPart((s) => s.board?.sources)?.find((s) => s.id === focus?.source);
  if (!focus || !open) return null;
  return (
    <section>
      <div className="mb-1 flex items-center justify-between gap-2 text-[0.92rem]">
        <h3 className="font-text text-[0.92rem] font-bold">Summed, mono</h3>
        <DrumPick anchor={focus.a} mover={focus.b} source={focus.source} />
      </div>
      <SumCurve
        sure={open.sign !== 0}
        focus={focus}
        bodyLow={band?.body_low_hz ?? 50}
        bodyHigh={band?.body_high_hz ?? 100}
      />
      <dl className="mt-1 grid grid-cols-[1fr_auto] gap-y-0.5 text-[0.9rem]">
        <dt className="text-soft">First dip</dt>
        <dd className="num font-bold">{dipText(open.first_dip_hz)}</dd>
        {bodySums(open).map((s) => (
          <div key={s.name} className="contents">
            <dt className="text-soft first-letter:uppercase">{s.name}</dt>
            <dd className="num font-bold">{sumText(s.db)} dB</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1.5 text-[0.85rem]">
        <VerdictWord verdict={open.verdict} />: {open.words}
      </p>
    </section>
  );
}

/** Made anew only when it is about something else: a list in it costs more than all the rest. */
const DrumPick = memo(function DrumPick(props: { anchor: string; mover: string; source: string }) {
  const { anchor, mover, source } = props;
  const editor = useEditor();
  const sources = useEditorPart((s) => s.board?.sources) ?? [];
  return (
    <Pick
      label="Drum of the sum"
      hideLabel
      className="max-w-32 py-0.5 text-[0.85rem] font-semibold"
      value={source}
      options={sources.map((s) => s.id)}
      names={Object.fromEntries(sources.map((s) => [s.id, s.name]))}
      onTake={(one) => editor.open({ anchor, mover, source: one })}
    />
  );
});
