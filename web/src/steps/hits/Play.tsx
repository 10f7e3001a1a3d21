/** Which hits to play, as text for the drummer and as a page that counts along on a phone. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { HitList } from "../../api/types";
import { useEditorPart } from "../../parts/editing";

export function Play({ onRecorded }: { onRecorded: () => void }) {
  const doc = useEditorPart((s) => s.still);
  const list = useQuery({
    queryKey: ["hit list", doc],
    queryFn: () => must<HitList>(api.POST("/api/hit-list", { body: { layout: doc } })),
    placeholderData: (old) => old,
  });
  const [at, setAt] = useState<number | null>(null);
  if (list.error && !list.data) return <p role="alert">{list.error.message}</p>;
  if (!list.data) return <p className="text-soft">Looking for what is open…</p>;
  if (at !== null) return <Counting list={list.data} at={at} setAt={setAt} onEnd={onRecorded} />;
  return <AsText list={list.data} onBegin={() => setAt(0)} />;
}

function AsText({ list, onBegin }: { list: HitList; onBegin: () => void }) {
  return (
    <section className="max-w-2xl space-y-3" aria-label="Hits to play">
      <p className="text-[1.05rem]">{list.words}</p>
      {list.caution && <p className="rounded-lg border border-hair bg-card p-3">{list.caution}</p>}
      <ol className="divide-y divide-hair">
        {list.rows.map((r) => (
          <li key={r.source} className="flex justify-between gap-3 py-1.5" data-play={r.source}>
            <span>
              <b>{r.name}</b>, {r.hits} hits
            </span>
            <span className="text-soft">{r.words}</span>
          </li>
        ))}
      </ol>
      {list.rows.length > 0 && (
        <p className="flex flex-wrap items-center gap-3">
          <button type="button" className="btn-main" onClick={onBegin}>
            Count along
          </button>
          <span className="text-soft">about {Math.ceil(list.minutes)} min of the drummer</span>
        </p>
      )}
    </section>
  );
}

interface CountingProps {
  list: HitList;
  at: number;
  setAt: (n: number | null) => void;
  onEnd: () => void;
}

/** The whole list hit by hit, so large that it is read from the stool. */
function Counting({ list, at, setAt, onEnd }: CountingProps) {
  const every = list.rows.flatMap((r) =>
    Array.from({ length: r.hits }, (_, n) => ({ ...r, hit: n + 1 })),
  );
  const now = every[at];
  const next = every[at + 1];
  if (!now) return null;
  return (
    <section aria-label="Count along" className="mx-auto max-w-md text-center">
      <p className="text-[1.1rem] text-soft">
        {at + 1} of {every.length}
      </p>
      <p className="font-head text-[2.6rem] leading-tight font-bold" data-now={now.source}>
        {now.name}
      </p>
      <p className="num text-[7rem] leading-none font-bold" aria-live="polite">
        {now.hit}
      </p>
      <p className="min-h-6 text-soft">
        {next && next.source !== now.source ? `then ${next.name}` : "let it ring out"}
      </p>
      <button
        type="button"
        className="btn-main mt-3 min-h-24 w-full text-[1.6rem]"
        onClick={() => (next ? setAt(at + 1) : onEnd())}
      >
        {next ? "Hit" : "Last hit"}
      </button>
      <BackOrEnd {...{ at, setAt }} />
    </section>
  );
}

function BackOrEnd({ at, setAt }: Pick<CountingProps, "at" | "setAt">) {
  return (
    <p className="mt-3 flex justify-between">
      <button
        type="button"
        className="btn"
        disabled={at === 0}
        onClick={() => setAt(Math.max(at - 1, 0))}
      >
        One back
      </button>
      <button type="button" className="btn" onClick={() => setAt(null)}>
        End
      </button>
    </p>
  );
}
