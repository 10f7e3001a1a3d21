/** For those who align afterwards: by how many samples each track goes later, and what is flipped. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { AlignRow, Layout, TakeTold } from "../../api/types";
import { useEditor } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { Tick } from "../../parts/fields/Tick";
import { AlignEffect } from "./AlignEffect";

const EACH = "each";
const BY_PLAN = "its drum was not hit: by the plan";

interface Props {
  take: number;
  told: TakeTold;
  job: number | null;
}

/** An overhead is what close mics are usually brought to. */
export function usualReference(channels: string[], doc: Layout): string {
  const role = (id: string) => {
    const mic = doc.channels?.find((c) => c.id === id)?.mic ?? id;
    return doc.mics.find((m) => m.id === mic)?.role;
  };
  return channels.find((c) => role(c) === "overhead") ?? channels[0] ?? "";
}

export function Align({ take, told, job }: Props) {
  const channels = told.tracks.flatMap((t) => t.channel ?? []);
  const editor = useEditor();
  const [to, setTo] = useState(() => usualReference(channels, editor.snapshot().still));
  const [on, setOn] = useState(EACH);
  const [parts, setParts] = useState(false);
  const query = { to, on: on === EACH ? undefined : on, whole: !parts };
  const path = { pk: take, job: job ?? 0 };
  const rows = useQuery({
    queryKey: ["align", take, job, query],
    queryFn: () =>
      must<AlignRow[]>(
        api.GET("/api/takes/{pk}/measures/{job}/align", { params: { path, query } }),
      ),
    enabled: job !== null,
    placeholderData: (old) => old,
  });
  return (
    <div className="space-y-3">
      <p className="max-w-prose text-soft">
        Tracks only go later, so no start is lost. A close mic is brought to the others on its own
        drum; where a mic hears the kit, no one delay fits every drum.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <Pick label="Bring all to" value={to} options={channels} onTake={setTo} />
        <Pick
          label="On"
          value={on}
          options={[EACH, ...told.drums.map((d) => d.source)]}
          names={{
            [EACH]: "each its own drum",
            ...Object.fromEntries(told.drums.map((d) => [d.source, `${d.name} alone`])),
          }}
          onTake={setOn}
        />
        <Tick checked={parts} onTake={setParts}>
          parts of a sample
        </Tick>
        <a className="btn" download href={fileOf(take, job, "align.csv", query)}>
          CSV
        </a>
        <a className="btn" download href={fileOf(take, job, "aligned.zip", query)}>
          Aligned copies, ZIP
        </a>
      </div>
      {rows.error && <p role="alert">{rows.error.message}</p>}
      {rows.data && <Table rows={rows.data} rate={told.rate_hz} />}
      {job !== null && (
        <AlignEffect key={JSON.stringify([job, query])} take={take} job={job} how={query} />
      )}
      <p className="text-[0.85rem] text-soft">
        Copies have the format, bits and start time of the files they are of, which are never
        touched. Whole samples change no bit; parts of one are read between the samples, then
        dithered by a triangle of one step where the file has 16 or 24 bits.{" "}
        <code>./ringside measure LAYOUT FILES --to {to} --align FOLDER</code> writes the same.
      </p>
    </div>
  );
}

function fileOf(
  take: number,
  job: number | null,
  file: "align.csv" | "aligned.zip",
  query: Record<string, string | boolean | undefined>,
) {
  const told = Object.entries(query).flatMap(([k, v]) => (v === undefined ? [] : [[k, `${v}`]]));
  return `/api/takes/${take}/measures/${job ?? 0}/${file}?${new URLSearchParams(told)}`;
}

function Table({ rows, rate }: { rows: AlignRow[]; rate: number }) {
  return (
    <table className="w-full text-[0.9rem]" aria-label="Samples later">
      <thead className="text-left text-[0.8rem] text-soft">
        <tr>
          <th className="font-normal">Track</th>
          <th className="text-right font-normal">samples later</th>
          <th className="text-right font-normal">ms</th>
          <th className="pl-4 font-normal">flip</th>
          <th className="font-normal">left afterwards</th>
        </tr>
      </thead>
      <tbody className="divide-y divide-hair">
        {rows.map((r) => (
          <tr key={r.channel} data-align={r.channel}>
            <th scope="row" className="num py-1 text-left font-bold">
              {r.channel}
            </th>
            <td className="num text-right">{r.why_not ? "" : r.later}</td>
            <td className="num text-right">
              {r.why_not ? "" : ((r.later / rate) * 1000).toFixed(2)}
            </td>
            <td className="pl-4">{r.flip ? "flip" : ""}</td>
            <td className="text-[0.82rem] text-soft">
              {r.why_not || leftOf(r) || (r.by_plan && BY_PLAN)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What one delay cannot bring together, the worst drum of it. */
function leftOf(row: AlignRow): string {
  const worst = row.left_ms.reduce((n, ms) => (Math.abs(ms) > Math.abs(n) ? ms : n), 0);
  const at = row.on[row.left_ms.indexOf(worst)];
  return Math.abs(worst) < 0.05 || !at ? "" : `up to ${Math.abs(worst).toFixed(2)} ms, on ${at}`;
}
