/** The sum drawn: over frequency, or its body over delay. */
import { useState } from "react";
import type { Focus, PairDepth, PairRow } from "../../../api/types";
import { DelayChart } from "../../../parts/curves/DelayChart";
import { CurveLegend, SumCurve } from "../../../parts/curves/SumCurve";
import { useEditorPart } from "../../../parts/editing";
import { Views } from "../../../parts/fields/Views";
import { useMe } from "../../../parts/me";
import { Why } from "../../../parts/Why";

const CHARTS = [
  ["frequency", "Over frequency"],
  ["delay", "Body over delay"],
] as const;

interface Props {
  focus: Focus;
  row: PairRow;
  depth: PairDepth | undefined;
  tried: boolean;
}

export function SumCharts({ focus, row, depth, tried }: Props) {
  const [chart, setChart] = useState<(typeof CHARTS)[number][0]>("frequency");
  return (
    <>
      <Views
        small
        label="Chart of the sum"
        value={chart}
        options={CHARTS}
        onTake={setChart}
        view="mt-1.5"
      >
        {chart === "frequency" ? (
          <OverFrequency focus={focus} row={row} />
        ) : (
          depth && <OverDelay depth={depth} row={row} />
        )}
      </Views>
      <CurveLegend mic={row.sign === 0 ? null : row.b} />
      {depth && (
        <p className="mt-1 text-[0.85rem] font-semibold" data-delay-words>
          {tried ? "As it would be; not saved." : depth.by_delay.words}
        </p>
      )}
      <Why focus={focus} />
    </>
  );
}

function OverFrequency({ focus, row }: { focus: Focus; row: PairRow }) {
  const band = useEditorPart((s) => s.board?.sources.find((b) => b.id === focus.source));
  return (
    <SumCurve
      sure={row.sign !== 0}
      focus={focus}
      bodyLow={band?.body_low_hz ?? 50}
      bodyHigh={band?.body_high_hz ?? 100}
      width={340}
      height={124}
    />
  );
}

function OverDelay({ depth, row }: { depth: PairDepth; row: PairRow }) {
  const speed = useEditorPart((s) => s.board?.speed_of_sound_m_s ?? 343.2);
  const ruler = useMe();
  return (
    <DelayChart
      curve={depth.by_delay}
      mover={row.b}
      speed={speed}
      ruler={ruler}
      sure={row.sign !== 0}
    />
  );
}
