/** What a day allows: time and money, where they are limited. */
import type { FormEvent } from "react";
import type { Locker } from "../../api/types";

/** Empty is no limit. */
function limit(text: FormDataEntryValue | null): number | null {
  const plain = String(text ?? "").trim();
  return plain === "" ? null : Number(plain);
}

export function Limits({ locker, onTake }: { locker: Locker; onTake: (next: Locker) => void }) {
  const rows = [
    ["minutes", "Minutes to set up", locker.minutes, "1"],
    ["per", "Minutes a mic takes", locker.minutes_per_mic, "0.5"],
    ["budget", "Budget for a day", locker.budget, "0.01"],
  ] as const;
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    onTake({
      ...locker,
      minutes: limit(form.get("minutes")),
      budget: limit(form.get("budget")),
      minutes_per_mic: limit(form.get("per")) ?? 6,
    });
  };
  return (
    <form className="space-y-3" onSubmit={submit}>
      <h2 className="text-[1.05rem]">What a day allows</h2>
      <p className="text-[0.88rem] text-soft">
        If wanted: a layout then says when it takes longer or costs more. Empty is no limit.
      </p>
      {rows.map(([field, label, value, step]) => (
        <label key={field} className="block">
          <span className="text-[0.8rem] text-soft">{label}</span>
          <input
            name={field}
            type="number"
            min="0"
            step={step}
            className="field num w-full"
            defaultValue={value ?? ""}
          />
        </label>
      ))}
      <button type="submit" className="btn w-full">
        Keep these
      </button>
      <p className="text-[0.85rem] text-soft">
        Choose a row to change it. Booms over heads want a counterweight and a tight clutch; cables
        are taped down and exits stay clear.
      </p>
    </form>
  );
}
