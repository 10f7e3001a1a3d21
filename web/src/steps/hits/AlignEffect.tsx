/** What aligning would do to every pair: measured from the take, as if its tracks were so. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { AlignChange, AlignEffect as Effect, Job } from "../../api/types";
import { sumText } from "../../core/units";
import { sourceName, spoken } from "../../core/words";
import { useEditorPart } from "../../parts/editing";
import { JobProgress } from "../../parts/JobProgress";
import { Mark } from "../../parts/Mark";
import { useJob } from "../../parts/useJob";

/** How tracks are aligned; as the interface asks it. */
export interface How {
  to: string;
  on: string | undefined;
  whole: boolean;
}

interface Props {
  take: number;
  job: number;
  how: How;
}

/** What is told is of one way of aligning: another wants to be asked for anew. */
export function AlignEffect(props: Props) {
  const { take, job, how } = props;
  const [done, setDone] = useState<number | null>(null);
  const progress = useJob(
    (pk) => must<Job>(api.GET("/api/measures/{pk}", { params: { path: { pk } } })),
    (pk) => must<Job>(api.DELETE("/api/measures/{pk}", { params: { path: { pk } } })),
    (now) => setDone(now.id),
  );
  const path = { pk: take, job };
  const ask = () =>
    progress.start(
      must<Job>(
        api.POST("/api/takes/{pk}/measures/{job}/effect", { params: { path, query: how } }),
      ),
    );
  const told = useQuery({
    queryKey: ["align effect", take, job, done],
    queryFn: () =>
      exactly<Effect>(
        api.GET("/api/takes/{pk}/measures/{job}/effect/{other}", {
          params: { path: { ...path, other: done ?? 0 } },
        }),
      ),
    enabled: done !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <section aria-label="What aligning does to every pair" className="space-y-2">
      {!told.data && (
        <button type="button" className="btn" onClick={ask}>
          What it does to every pair
        </button>
      )}
      <JobProgress
        job={progress.job}
        bad={progress.bad || (told.error?.message ?? "")}
        doing="Measuring it as aligned…"
        onStop={progress.stop}
      />
      {told.data && <Told effect={told.data} />}
    </section>
  );
}

function Told({ effect }: { effect: Effect }) {
  return (
    <div data-effect className="space-y-2">
      <p className="font-semibold">{effect.words}</p>
      <Changes title="Marked then" rows={effect.worse} />
      <Changes title="Cured" rows={effect.cured} />
      <Changes title="More or less body" rows={effect.body} />
    </div>
  );
}

function Changes({ title, rows }: { title: string; rows: AlignChange[] }) {
  const doc = useEditorPart((s) => s.still);
  if (!rows.length) return null;
  return (
    <div>
      <h3 className="text-[0.85rem] text-soft">{title}</h3>
      <ul aria-label={title} className="divide-y divide-hair text-[0.9rem]">
        {rows.map((c) => (
          <li
            key={`${c.a} ${c.b} ${c.source}`}
            data-change={`${c.a}-${c.b}`}
            className="flex flex-wrap items-center gap-x-2 py-1"
          >
            <b className="num">
              {c.a} {c.b}
            </b>
            <span>on {spoken(sourceName(doc, c.source))}:</span>
            <Mark verdict={c.before} size={11} /> {c.before}
            <span aria-hidden="true">→</span>
            <Mark verdict={c.after} size={11} /> {c.after}
            <span className="num text-[0.82rem] text-soft">
              body {sumText(c.body_db[0])} → {sumText(c.body_db[1])} dB
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
