/** Lugs through the day: what was read at each, when, and whether the drum holds. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, must } from "../../../api/client";
import type { Tuning } from "../../../api/types";
import { atClock } from "../../../core/moments";
import { counted } from "../../../core/words";
import { Pick } from "../../../parts/fields/Pick";
import { useLog } from "../../../parts/log";
import { useToast } from "../../../parts/toast";

interface Props {
  tuning: Tuning;
  session: number;
}

export function Lugs({ tuning, session }: Props) {
  return (
    <section aria-label="Lugs through the day" className="space-y-2 text-[0.88rem]">
      <h3 className="text-[0.95rem]">Lugs through the day</h3>
      {tuning.drift.map((d) => (
        <p key={d.drum} data-drift={d.drum}>
          <strong className={d.words.endsWith("holds.") ? "text-ring" : "text-latetext"}>
            {d.words}
          </strong>{" "}
          <span className="text-soft">
            {counted(d.times, "reading")}, the last {d.minutes} min ago; fundamental about{" "}
            {d.fundamental_hz.toFixed(0)} Hz by the membrane.
          </span>
        </p>
      ))}
      <WriteDown tuning={tuning} session={session} />
      <Log tuning={tuning} session={session} />
    </section>
  );
}

function useAgain(session: number) {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: ["tuning", session] });
}

const HOW = "Type hertz with spaces between, from the lug nearest the strike round: 330 331 329";

/** The hertz in what is typed, or null. */
function readLugs(text: string): number[] | null {
  const values = text
    .trim()
    .split(/[\s;]+/)
    .map((t) => Number(t.replace(",", ".")));
  return values.every((v) => Number.isFinite(v) && v >= 20 && v <= 3000) ? values : null;
}

function WriteDown({ tuning, session }: Props) {
  const [drum, setDrum] = useState(tuning.drums.find((d) => d.id === "snare")?.id ?? "");
  const [bad, setBad] = useState("");
  const log = useLog();
  const write = useMutation({
    mutationFn: (lugs_hz: number[]) => log("lugs", { drum, lugs_hz }),
    onSuccess: useAgain(session),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const lugs = readLugs(String(new FormData(form).get("lugs")));
    setBad(lugs ? "" : HOW);
    if (lugs) write.mutate(lugs, { onSuccess: () => form.reset() });
  };
  return (
    <>
      <form onSubmit={submit} className="flex flex-wrap items-end gap-2">
        <Pick
          label="Drum"
          value={drum}
          options={tuning.drums.map((d) => d.id)}
          names={Object.fromEntries(tuning.drums.map((d) => [d.id, d.name]))}
          onTake={setDrum}
        />
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
    </>
  );
}

function Log({ tuning, session }: Props) {
  const say = useToast();
  const strike = useMutation({
    mutationFn: (row: number) =>
      must(api.DELETE("/api/sessions/{pk}/lugs/{row}", { params: { path: { pk: session, row } } })),
    onSuccess: useAgain(session),
    onError: (e) => say(e.message),
  });
  return (
    <ul>
      {[...tuning.log].reverse().map((r) => (
        <li key={r.id} className="flex items-baseline gap-2">
          <span className="num text-soft">{atClock(r.at)}</span>
          <span>{tuning.drums.find((d) => d.id === r.drum)?.name ?? r.drum}</span>
          <span className="num min-w-0 flex-1">{r.lugs_hz.map((h) => h.toFixed(0)).join(" ")}</span>
          <span className="text-soft">{r.by}</span>
          <button type="button" className="text-soft underline" onClick={() => strike.mutate(r.id)}>
            strike out
          </button>
        </li>
      ))}
    </ul>
  );
}
