/** Instrument notes: the note of every drum, the spread of the toms, lugs through the day. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { Tuning } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { useToast } from "../../parts/toast";

export function TuningPanel({ onChoose }: { onChoose: (id: string) => void }) {
  const kit = useEditorPart((s) => s.still.kit);
  const session = useEditorPart((s) => s.out.session_id);
  const path = { params: { path: { pk: session } } };
  const found = useQuery({
    queryKey: ["tuning", session, kit],
    queryFn: () => exactly<Tuning>(api.POST("/api/sessions/{pk}/tuning", { ...path, body: kit })),
    placeholderData: (old) => old,
    refetchInterval: 60_000,
  });
  const tuning = found.data;
  if (!tuning) return <p className="px-4 text-soft">{found.error?.message ?? "Asking…"}</p>;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-5 px-4 pb-3">
      <div className="min-h-0 overflow-y-auto">
        <PitchLine tuning={tuning} onChoose={onChoose} />
        <p className="text-[0.88rem]" data-spread>
          {tuning.spread_words}
        </p>
      </div>
      <div className="min-h-0 overflow-y-auto">
        <Lugs tuning={tuning} session={session} />
      </div>
    </div>
  );
}

const WIDE = 560;
const HIGH = 96;

/** Every drum on one line of notes, so that the steps between toms are seen as lengths. */
function PitchLine({ tuning, onChoose }: { tuning: Tuning; onChoose: (id: string) => void }) {
  const hz = tuning.drums.map((d) => d.fundamental_hz);
  const [low, high] = [Math.log2(Math.min(...hz)) - 0.15, Math.log2(Math.max(...hz)) + 0.15];
  const x = (f: number) => 24 + ((Math.log2(f) - low) / (high - low)) * (WIDE - 48);
  const rows = [...tuning.drums].sort((a, b) => a.fundamental_hz - b.fundamental_hz);
  return (
    <>
      <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="w-full" aria-hidden="true">
        <line x1="8" x2={WIDE - 8} y1="52" y2="52" stroke="var(--hair)" strokeWidth="3" />
        {tuning.steps.map((s) => {
          const [a, b] = [s.high, s.low].map(
            (id) => tuning.drums.find((d) => d.id === id)?.fundamental_hz ?? 100,
          ) as [number, number];
          return (
            <g key={`${s.high} ${s.low}`} opacity={s.sure ? 1 : 0.55}>
              <path
                d={`M${x(a)} 62v6H${x(b)}v-6`}
                fill="none"
                stroke="var(--tom)"
                strokeDasharray={s.sure ? undefined : "3 3"}
              />
              <text
                x={(x(a) + x(b)) / 2}
                y="82"
                textAnchor="middle"
                fontSize="11"
                fill="var(--tom)"
              >
                {s.words}
              </text>
            </g>
          );
        })}
        {rows.map((d, i) => (
          <g key={d.id}>
            <line
              x1={x(d.fundamental_hz)}
              x2={x(d.fundamental_hz)}
              y1={i % 2 ? 20 : 34}
              y2="58"
              stroke="var(--ink)"
              strokeWidth={d.known ? 2 : 1}
              strokeDasharray={d.known ? undefined : "2 3"}
            />
            <text
              x={x(d.fundamental_hz)}
              y={i % 2 ? 14 : 29}
              textAnchor="middle"
              fontSize="11.5"
              fontWeight="600"
              fill="var(--ink)"
            >
              {d.name}
            </text>
          </g>
        ))}
      </svg>
      <table className="w-full text-[0.86rem]">
        <caption className="sr-only">Fundamentals and notes</caption>
        <thead className="text-left text-soft">
          <tr>
            <th className="font-normal">Drum</th>
            <th className="font-normal">Hz</th>
            <th className="font-normal">Note</th>
            <th className="font-normal">Cents</th>
            <th className="font-normal" />
          </tr>
        </thead>
        <tbody>
          {tuning.drums.map((d) => (
            <tr key={d.id}>
              <th scope="row" className="text-left font-normal">
                <button type="button" className="underline" onClick={() => onChoose(d.id)}>
                  {d.name}
                </button>
              </th>
              <td className="num">{d.fundamental_hz.toFixed(1)}</td>
              <td className="num font-semibold" data-note={d.id}>
                {d.note}
              </td>
              <td className="num">{`${d.cents > 0 ? "+" : ""}${d.cents.toFixed(0)}`}</td>
              <td className="text-soft">{d.known ? "typed" : "estimated from size"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Lugs({ tuning, session }: { tuning: Tuning; session: number }) {
  const queries = useQueryClient();
  const say = useToast();
  const [drum, setDrum] = useState(tuning.drums.find((d) => d.id === "snare")?.id ?? "");
  const again = () => queries.invalidateQueries({ queryKey: ["tuning", session] });
  const write = useMutation({
    mutationFn: (lugs_hz: number[]) =>
      must(
        api.POST("/api/sessions/{pk}/lugs", {
          params: { path: { pk: session } },
          body: { drum, lugs_hz },
        }),
      ),
    onSuccess: again,
  });
  const strike = useMutation({
    mutationFn: (row: number) =>
      must(api.DELETE("/api/sessions/{pk}/lugs/{row}", { params: { path: { pk: session, row } } })),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const [bad, setBad] = useState("");
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const words = String(new FormData(form).get("lugs"))
      .trim()
      .split(/[\s;]+/);
    const values = words.map((t) => Number(t.replace(",", ".")));
    if (values.some((v) => !Number.isFinite(v) || v < 20 || v > 3000)) {
      setBad("Type hertz with spaces between, from the lug nearest the strike round: 330 331 329");
      return;
    }
    setBad("");
    write.mutate(values, { onSuccess: () => form.reset() });
  };
  return (
    <section aria-label="Lugs through the day" className="space-y-2 text-[0.88rem]">
      <h3 className="text-[0.95rem]">Lugs through the day</h3>
      {tuning.drift.map((d) => (
        <p key={d.drum} data-drift={d.drum}>
          <strong className={d.words.endsWith("holds.") ? "text-ring" : "text-latetext"}>
            {d.words}
          </strong>{" "}
          <span className="text-soft">
            {d.times} readings, the last {d.minutes} min ago; fundamental about{" "}
            {d.fundamental_hz.toFixed(0)} Hz by the membrane.
          </span>
        </p>
      ))}
      <form onSubmit={submit} className="flex flex-wrap items-end gap-2">
        <label>
          <span className="block text-[0.8rem] text-soft">Drum</span>
          <select className="field" value={drum} onChange={(e) => setDrum(e.target.value)}>
            {tuning.drums.map((d) => (
              <option key={d.id} value={d.id}>
                {d.name}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-40 flex-1">
          <span className="block text-[0.8rem] text-soft">
            Hz beside each lug, strike lug first
          </span>
          <input name="lugs" className="field num w-full" required placeholder="330 331 329 …" />
        </label>
        <button type="submit" className="btn" disabled={write.isPending}>
          Write it down
        </button>
      </form>
      {(bad || write.error) && (
        <p role="alert" className="text-hollow">
          {bad || write.error?.message}
        </p>
      )}
      <ul>
        {[...tuning.log].reverse().map((r) => (
          <li key={r.id} className="flex items-baseline gap-2">
            <span className="num text-soft">
              {new Date(r.at).toLocaleTimeString([], {
                hour: "2-digit",
                minute: "2-digit",
                hourCycle: "h23",
              })}
            </span>
            <span>{tuning.drums.find((d) => d.id === r.drum)?.name ?? r.drum}</span>
            <span className="num min-w-0 flex-1 truncate">
              {r.lugs_hz.map((h) => h.toFixed(0)).join(" ")}
            </span>
            <span className="text-soft">{r.by}</span>
            <button
              type="button"
              className="text-soft underline"
              onClick={() => strike.mutate(r.id)}
            >
              strike out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
