/** One pair on one drum: the numbers, the sum, and what can be done about it. */
import type { Focus, PairRow } from "../../../api/types";
import { micOf } from "../../../core/edits";
import { useEditorPart } from "../../../parts/editing";
import { useDepth } from "../data";
import type { OnTrial } from "../useTrial";
import { AsRecorded } from "./AsRecorded";
import { Head } from "./Head";
import { Numbers } from "./Numbers";
import { SumCharts } from "./SumCharts";
import { WhatToDo } from "./WhatToDo";

export function PairDetail({ focus, ...trial }: { focus: Focus } & OnTrial) {
  const doc = useEditorPart((s) => s.still);
  const depth = useDepth(focus);
  const [a, b] = [micOf(doc, focus.a), micOf(doc, focus.b)];
  const row = focus.rows.find((r) => r.source === focus.source) as PairRow;
  if (!a || !b) return null;
  return (
    <section
      className="grid h-full grid-cols-[1.1fr_1fr_1.15fr] *:relative *:overflow-y-auto *:px-3 *:py-2.5 narrow:grid-cols-[minmax(0,1fr)] narrow:*:border-b narrow:*:border-hair narrow:*:px-4"
      aria-label={`Pair ${a.id} with ${b.id}`}
    >
      <div className="min-w-0">
        <Head focus={focus} a={a} b={b} row={row} onTry={trial.onTry} />
        <AsRecorded a={a.id} b={b.id} source={focus.source} />
        <Numbers row={row} depth={trial.tried ? undefined : depth.data} />
      </div>
      <div className="min-w-0">
        <SumCharts focus={focus} row={row} depth={depth.data} tried={trial.tried !== null} />
      </div>
      <div className="min-w-0 space-y-2">
        <WhatToDo focus={focus} row={row} depth={depth} {...trial} />
      </div>
    </section>
  );
}
