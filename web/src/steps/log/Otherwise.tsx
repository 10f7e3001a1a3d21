/** A line said otherwise, after the mix was heard: what it said before is struck out, not lost. */
import { type FormEvent, useState } from "react";
import type { Tried } from "../../api/types";
import type { Draft } from "../../core/lineDraft";
import { HEARD } from "../../core/triedLines";
import { Segmented } from "../../parts/fields/Segmented";
import { HeardIn } from "./HeardIn";
import { useSayOtherwise } from "./useTried";

export function Otherwise({ line, onEnd }: { line: Tried; onEnd: () => void }) {
  const { song, words, verdict } = line;
  const [draft, set] = useState<Draft>({ song, words, verdict, take: line.take?.id ?? null });
  const { mutate, isPending } = useSayOtherwise(line.id);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    mutate(draft);
  };
  return (
    <form onSubmit={submit} className="space-y-2" aria-label="Say it otherwise">
      <Segmented
        label="How it is"
        value={draft.verdict}
        options={HEARD}
        onTake={(heard) => set({ ...draft, verdict: heard })}
      />
      <label className="block">
        <span className="text-[0.8rem] text-soft">Song of this line</span>
        <input
          className="field w-full"
          maxLength={80}
          value={draft.song}
          onChange={(e) => set({ ...draft, song: e.target.value })}
        />
      </label>
      <label className="block">
        <span className="text-[0.8rem] text-soft">What it did then</span>
        <textarea
          className="field w-full"
          rows={3}
          maxLength={1000}
          value={draft.words}
          onChange={(e) => set({ ...draft, words: e.target.value })}
        />
      </label>
      <HeardIn value={draft.take ?? null} onTake={(take) => set({ ...draft, take })} />
      <p className="flex gap-2">
        <button type="submit" className="btn" disabled={isPending}>
          Say it so
        </button>
        <button type="button" className="btn" onClick={onEnd}>
          Leave it
        </button>
      </p>
    </form>
  );
}
