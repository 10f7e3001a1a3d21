/** This take held against another of the layout: what moved, and what was retuned. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { Since as Changed, Job, Take } from "../../api/types";
import { Pick } from "../../parts/fields/Pick";
import { JobProgress } from "../../parts/JobProgress";
import { useJob } from "../../parts/useJob";
import { Words } from "../../parts/Words";
import { type TakesHere, whole } from "./useTakes";

export function Since({ take, takes }: { take: Take; takes: TakesHere }) {
  const others = (takes.found.data?.takes ?? []).filter((t) => t.id !== take.id && whole(t));
  const [other, setOther] = useState("");
  const [done, setDone] = useState<number | null>(null);
  const { job, bad, start } = useJob(
    (pk) => must<Job>(api.GET("/api/comparisons/{pk}", { params: { path: { pk } } })),
    null,
    (now) => setDone(now.id),
  );
  if (!others.length)
    return <p className="text-soft">Take in another take of this layout to compare it with.</p>;
  const compare = (id: string) => {
    setOther(id);
    setDone(null);
    const path = { pk: take.id, other: Number(id) };
    start(must<Job>(api.POST("/api/takes/{pk}/since/{other}", { params: { path } })));
  };
  return (
    <div className="space-y-3">
      <div className="max-w-sm">
        <Pick
          label="Compare with"
          value={other}
          placeholder="choose …"
          options={others.map((t) => String(t.id))}
          names={Object.fromEntries(others.map((t) => [String(t.id), t.name]))}
          onTake={compare}
        />
      </div>
      <p className="flex items-center gap-2 empty:hidden">
        <JobProgress job={job} bad={bad} doing="Comparing the two…" />
      </p>
      {done !== null && <What job={done} />}
    </div>
  );
}

function What({ job }: { job: number }) {
  const found = useQuery({
    queryKey: ["since", job],
    queryFn: () =>
      must<Changed>(api.GET("/api/comparisons/{pk}/since", { params: { path: { pk: job } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return null;
  const { moved, retuned, words, drums } = found.data;
  return (
    <div data-since>
      <p>{words}</p>
      <ul aria-label="What changed" className="list-disc space-y-1 pl-5">
        {moved.map((m) => (
          <li key={m.text}>
            <Words of={m} />
          </li>
        ))}
        {retuned.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      <p className="mt-1 text-[0.85rem] text-soft">
        From the earlier take to the later one, by {drums.length} drums hit in both.
      </p>
    </div>
  );
}
