/** One mic: typed distances, place, aim, pattern, what it is for, and every switch. */
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, exactly } from "../../api/client";
import type { Lock, Mic, Pattern, Role, Spot } from "../../api/types";
import { copied, locked, placed, removed, renamed, techniqueOf, withMic } from "../../core/edits";
import {
  howToType,
  lengthText,
  lengthWithUnit,
  msText,
  parseLength,
  type Ruler,
  threeAcross,
  unitMark,
} from "../../core/units";
import { firstDrum, SWITCHES } from "../../core/words";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { Choice, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { MicTag } from "../../parts/MicTag";
import { useMe } from "../../parts/me";
import { useLocker } from "../../parts/stock";
import { useToast } from "../../parts/toast";
import { AtTheDrum } from "./AtTheDrum";
import { useStanding } from "./techniques/data";

const PATTERNS: Pattern[] = [
  "omni",
  "wide cardioid",
  "cardioid",
  "supercardioid",
  "hypercardioid",
  "figure-8",
];
const LOCKS: [Lock, string][] = [
  ["right", "Sideways"],
  ["front", "To and fro"],
  ["height", "Up and down"],
  ["aim", "Its turn"],
  ["polarity", "Its polarity"],
];
const ROLES: Role[] = ["close", "overhead", "room"];

interface Props {
  mic: Mic;
  onTechnique: (id: string) => void;
}

export function MicPanel({ mic, onTechnique }: Props) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.doc);
  const board = useEditorPart((s) => s.board);
  const lit = useLit();
  const ruler: Ruler = useMe();
  const say = useToast();
  const set = (change: Partial<Mic>, what: string) =>
    editor.commit(withMic(doc, mic.id, change), what);
  const own = techniqueOf(doc, mic.id)?.id;
  const ownName = useStanding().data?.find((r) => r.id === own)?.name;
  const blocked = board?.blocked[mic.id];
  const locker = useLocker().data?.locker;
  const moveTo = (axis: 0 | 1 | 2, metres: number) => {
    const p: [number, number, number] = [...mic.position_m];
    p[axis] = metres;
    editor.commit(placed(doc, mic.id, p), `Moved ${mic.id}`);
  };
  const aimAt = useMutation({
    mutationFn: (target: string) =>
      exactly<{ aim: Mic["aim"] }>(
        api.POST("/api/aim-at", { body: { layout: doc, mic: mic.id, target } }),
      ),
    onSuccess: ({ aim }) => {
      const now = editor.snapshot().doc; // it may have been edited while this was asked
      editor.commit(withMic(now, mic.id, { aim }), `Aimed ${mic.id}`);
    },
    onError: (e) => say(e.message),
  });
  const takeAway = () => {
    editor.commit(removed(doc, mic.id), `Took ${mic.id} away`);
    lit.select(null);
    say(`${mic.id} is taken away`, { label: "Undo", run: () => void editor.step("undo") });
  };
  const double = () => {
    const next = copied(doc, mic.id);
    editor.commit(next.layout, `Copied ${mic.id}`);
    lit.select(next.id);
  };
  return (
    <div className="space-y-3.5">
      <header className="flex items-center gap-2">
        <MicTag mic={mic} layout={doc} lit />
        <h2 className="truncate text-[1.05rem]">{mic.name}</h2>
      </header>
      {blocked && (
        <p role="alert" className="rounded-md border border-hollow p-2 text-[0.88rem] text-hollow">
          {blocked}
        </p>
      )}
      {own && (
        <p className="text-[0.85rem] text-soft">
          Part of{" "}
          <button
            type="button"
            className="font-semibold underline"
            onClick={() => onTechnique(own)}
          >
            {ownName ?? own}
          </button>
        </p>
      )}
      <ByTape mic={mic} key={`${mic.id} ${ruler.units}`} />
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        <LengthField
          label="Right"
          metres={mic.position_m[0]}
          ruler={ruler}
          onTake={(m) => moveTo(0, m)}
        />
        <LengthField
          label="Front"
          metres={mic.position_m[1]}
          ruler={ruler}
          onTake={(m) => moveTo(1, m)}
        />
        <LengthField
          label="Height"
          metres={mic.position_m[2]}
          ruler={ruler}
          onTake={(m) => moveTo(2, m)}
        />
      </div>
      {mic.role === "close" && mic.job && <AtTheDrum key={mic.id} mic={mic} />}
      <div className="grid grid-cols-2 gap-2">
        <Choice
          label="Pattern"
          value={mic.pattern}
          options={PATTERNS}
          onTake={(v) => set({ pattern: v as Pattern }, `${mic.id}: ${v}`)}
        />
        <Choice
          label="Role"
          value={mic.role}
          options={ROLES}
          onTake={(v) => set({ role: v as Role }, `${mic.id}: ${v}`)}
        />
        <Choice
          label="For"
          value={mic.job ?? ""}
          options={[
            "",
            ...doc.kit.drums.map((d) => d.id),
            ...(doc.kit.cymbals ?? []).map((c) => c.id),
          ]}
          names={{ "": "whole kit" }}
          onTake={(v) => set({ job: v || null }, `${mic.id} for ${v || "the whole kit"}`)}
        />
        <TextField
          label="Input"
          value={mic.channel ? String(mic.channel) : ""}
          wrong="1 to 256"
          onTake={(v) => {
            const n = Number(v);
            if (v !== "" && !(Number.isInteger(n) && n >= 1 && n <= 256)) return false;
            set({ channel: v === "" ? null : n }, `${mic.id} to input ${v || "none"}`);
            return true;
          }}
        />
        <Choice
          label="Mic"
          value={mic.model ?? ""}
          options={["", ...names(locker?.mics, mic.model)]}
          names={{ "": "not chosen", ...titles(locker?.mics) }}
          onTake={(v) => set({ model: v || null }, `${mic.id}: ${v || "no mic chosen"}`)}
        />
        <Choice
          label="Stand"
          value={mic.stand ?? ""}
          options={["", ...names(locker?.stands, mic.stand)]}
          names={{ "": "not chosen", ...titles(locker?.stands) }}
          onTake={(v) => set({ stand: v || null }, `${mic.id}: ${v || "no stand chosen"}`)}
        />
        <TextField
          label="Short name"
          value={mic.id}
          wrong="one word, not taken"
          onTake={(v) => {
            const taken = doc.mics.some((m) => m.id === v);
            if (taken || !/^[A-Za-z0-9][A-Za-z0-9_.+-]{0,15}$/.test(v)) return false;
            editor.commit(renamed(doc, mic.id, v), `Renamed ${mic.id} to ${v}`);
            lit.select(v);
            return true;
          }}
        />
        <TextField
          label="Name"
          value={mic.name}
          wrong="1 to 80 letters"
          onTake={(v) => {
            if (!v || v.length > 80) return false;
            set({ name: v }, `Named ${mic.id}`);
            return true;
          }}
        />
      </div>
      <label className="block">
        <span className="text-[0.8rem] text-soft">
          Aim: <span data-aim-words>{board?.aim[mic.id] ?? "…"}</span>
        </span>
        <select
          className="field w-full"
          aria-label="Aim at"
          value=""
          onChange={(e) => {
            if (e.target.value) aimAt.mutate(e.target.value);
          }}
        >
          <option value="">aim it at …</option>
          {[...doc.kit.drums, ...(doc.kit.cymbals ?? [])].map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
          <option value="down">straight down</option>
          <option value="up">straight up</option>
        </select>
      </label>
      <fieldset className="text-[0.9rem]">
        <legend className="mb-0.5 font-bold">Hold in place</legend>
        <div className="flex flex-wrap gap-x-4">
          {LOCKS.map(([lock, words]) => (
            <label key={lock} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={(mic.locks ?? []).includes(lock)}
                onChange={(e) =>
                  editor.commit(
                    locked(doc, mic.id, lock, e.target.checked),
                    `${e.target.checked ? "Hold" : "Free"} ${mic.id}: ${lock}`,
                  )
                }
              />
              {words}
            </label>
          ))}
        </div>
      </fieldset>
      <fieldset className="space-y-1 text-[0.9rem]">
        <legend className="mb-0.5 font-bold">Polarity, capsule to track</legend>
        {SWITCHES.map(([key, label]) => (
          <label key={key} className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={mic[key]}
              onChange={(e) =>
                set(
                  { [key]: e.target.checked },
                  `${label} ${e.target.checked ? "on" : "off"}, ${mic.id}`,
                )
              }
            />
            {label}
          </label>
        ))}
      </fieldset>
      <TextField
        label="Delay on the track afterwards, samples"
        value={String(mic.track_delay_samples)}
        wrong="whole samples, 0 to 20000"
        onTake={(v) => {
          const n = Number(v);
          if (v === "" || !Number.isInteger(n) || n < 0 || n > 20000) return false;
          set({ track_delay_samples: n }, `${mic.id} delayed by ${n} samples on the track`);
          return true;
        }}
      />
      <Hears mic={mic} />
      <div className="flex gap-2">
        <button type="button" className="btn flex-1" onClick={double}>
          Copy
        </button>
        <button type="button" className="btn flex-1" onClick={takeAway}>
          Take away
        </button>
      </div>
    </div>
  );
}

/** Short names to choose from; one that is no longer in the locker stays visible. */
function names(rows: { id: string }[] | undefined, now: string | null | undefined): string[] {
  const ids = (rows ?? []).map((r) => r.id);
  return now && !ids.includes(now) ? [...ids, now] : ids;
}

function titles(rows: { id: string; name: string }[] | undefined): Record<string, string> {
  return Object.fromEntries((rows ?? []).map((r) => [r.id, r.name]));
}

/** "snare 120, kick 152, 168 high": typed as it is measured. */
function ByTape({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.doc);
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  const to = (kind: "snare" | "kick") => {
    const k = board?.sources.findIndex((s) => s.id === firstDrum(doc, kind).id) ?? -1;
    return board?.tape_m[row]?.[k] ?? 0;
  };
  const now = [to("snare"), to("kick"), mic.position_m[2]];
  const [typed, setTyped] = useState<(string | null)[]>([null, null, null]);
  const [bad, setBad] = useState("");
  const find = useMutation({
    mutationFn: ([snare_m, kick_m, height_m]: [number, number, number]) =>
      exactly<Spot>(
        api.POST("/api/place-by-tape", {
          body: { layout: doc, mic: mic.id, snare_m, kick_m, height_m },
        }),
      ),
    onSuccess: (spot) => {
      setTyped([null, null, null]);
      if (spot.position_m)
        editor.commit(placed(doc, mic.id, spot.position_m), `Placed ${mic.id} by tape`);
    },
    onError: (e) => setBad(e.message),
  });
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setBad("");
    const values = typed.map((t, i) => (t === null ? (now[i] ?? 0) : parseLength(t, ruler)));
    if (values.some((v) => v === null)) setBad(`${howToType(ruler)}.`);
    else find.mutate(values as [number, number, number]);
  };
  return (
    <form onSubmit={submit} aria-label={`Place ${mic.id} by tape`}>
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        {["Snare", "Kick", "High"].map((name, i) => (
          <label key={name} className="min-w-0">
            <span className="text-[0.8rem] text-soft">
              {name}
              {unitMark(ruler)}
            </span>
            <input
              className={`field num w-full px-1.5 font-bold ${ruler.units === "cm" ? "text-[1.05rem]" : "text-[0.85rem]"}`}
              value={typed[i] ?? lengthText(now[i] ?? 0, ruler)}
              onChange={(e) => setTyped(typed.map((t, k) => (k === i ? e.target.value : t)))}
            />
          </label>
        ))}
      </div>
      <button type="submit" className="btn mt-1.5 w-full" disabled={typed.every((t) => t === null)}>
        Put it there
      </button>
      {bad && (
        <p role="alert" className="mt-1 text-[0.83rem] text-hollow">
          {bad}
        </p>
      )}
    </form>
  );
}

const SIGN: Record<string, string> = { "1": "+", "-1": "−", "0": "?" };

/** What reaches this mic from each drum: tape, path where it differs, time, level, sign. */
function Hears({ mic }: { mic: Mic }) {
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  if (!board || row < 0) return null;
  return (
    <details>
      <summary className="font-bold">What reaches it</summary>
      <table className="mt-1 w-full text-[0.82rem]">
        <thead className="text-left text-soft">
          <tr>
            <th className="font-normal">Drum</th>
            <th className="font-normal">Tape{unitMark(ruler)}</th>
            <th className="font-normal">ms</th>
            <th className="font-normal">dB</th>
            <th className="font-normal">First</th>
          </tr>
        </thead>
        <tbody>
          {board.sources.map((s, k) => {
            const [tape, path] = [board.tape_m[row]?.[k] ?? 0, board.path_m[row]?.[k] ?? 0];
            const differs = Math.abs(tape - path) > 0.01;
            return (
              <tr key={s.id}>
                <th scope="row" className="text-left font-normal">
                  {s.name}
                </th>
                <td
                  className="num"
                  title={differs ? `by air ${lengthWithUnit(path, ruler)}` : undefined}
                >
                  {lengthText(tape, ruler)}
                  {differs ? "*" : ""}
                </td>
                <td className="num">{msText(board.arrival_s[row]?.[k] ?? 0)}</td>
                <td className="num">{(board.after_gain_db[row]?.[k] ?? 0).toFixed(1)}</td>
                <td className="num">{SIGN[board.sign[row]?.[k] ?? 0]}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="text-[0.78rem] text-soft">
        * the sound takes a longer way than the tape: round a shell, through the drum, or from the
        edge of a cymbal. dB after gain, against the mic's own job.
      </p>
    </details>
  );
}
