/** Writing a line down: the song, what it did, and what had changed for it. */
import { type FormEvent, useState } from "react";
import type { Tried } from "../../api/types";
import { changeLines } from "../../core/changeWords";
import { type Draft, keepDraft, readDraft } from "../../core/lineDraft";
import { when } from "../../core/moments";
import { HEARD, likelyTake, songsOf } from "../../core/triedLines";
import type { Ruler } from "../../core/units";
import { useAsShown } from "../../parts/atkit/State";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useMe } from "../../parts/me";
import { useAskedTakes, useSessionTakes } from "../../parts/takes";
import { HeardIn } from "./HeardIn";
import { useSince, useUnsentLines, useWriteLine } from "./useTried";

/** What is begun, kept until it is written down; the song stays for the next one. */
function useDraft(lines: readonly Tried[]) {
  const layout = useEditorPart((s) => s.out.id);
  const [draft, set] = useState(() => readDraft(localStorage, layout));
  const takes = useSessionTakes().data;
  const { take: asked } = useAskedTakes();
  const begun: Draft = draft ?? { song: lines[0]?.song ?? "", words: "", verdict: "works" };
  const shown = { take: asked ?? likelyTake(takes ?? [], layout, lines), ...begun };
  const take = (change: Partial<Draft>) => {
    const next = { ...begun, ...change };
    keepDraft(localStorage, layout, next);
    set(next);
  };
  const done = () => {
    keepDraft(localStorage, layout, null);
    // The song stays for the next line, and how it is; which take it was heard in is asked anew.
    set({ song: begun.song, verdict: begun.verdict, words: "" });
  };
  /** What the log has put back, because it was refused. */
  const again = () => set(readDraft(localStorage, layout));
  return { draft: shown, take, done, again };
}

export function WriteLine({ lines }: { lines: readonly Tried[] }) {
  const { draft, take, done, again } = useDraft(lines);
  const write = useWriteLine();
  const submit = (e: FormEvent) => {
    e.preventDefault();
    write(draft).catch(again);
    done();
  };
  return (
    <form onSubmit={submit} className="space-y-3 min-[900px]:sticky min-[900px]:top-0">
      <h2 className="text-lg">Write it down</h2>
      <Song value={draft.song} songs={songsOf(lines)} onTake={(song) => take({ song })} />
      <Segmented
        label="How it is"
        value={draft.verdict}
        options={HEARD}
        onTake={(verdict) => take({ verdict })}
      />
      <label className="block">
        <span className="text-[0.8rem] text-soft">What it did</span>
        <textarea
          className="field w-full"
          rows={3}
          maxLength={1000}
          placeholder="Floor tom fuller, ride calmer"
          value={draft.words}
          onChange={(e) => take({ words: e.target.value })}
        />
      </label>
      <HeardIn value={draft.take} onTake={(heard) => take({ take: heard })} />
      <button type="submit" className="btn-main w-full">
        Write it down
      </button>
      {/* Told later, and anew with every line: below, where it moves no button from under a hand. */}
      <SinceLast />
      <Keeps />
      <Unsent />
    </form>
  );
}

function Keeps() {
  const how = useAsShown() ? "as it stands by the tape" : "as it is planned now";
  return (
    <p className="text-[0.85rem] text-soft">
      The line keeps the layout {how}: you can have it back, today or in another session. Levels at
      a kit hurt: protect your ears while somebody plays.
    </p>
  );
}

const MOST_SONGS = 6;

function Song(props: { value: string; songs: string[]; onTake: (song: string) => void }) {
  const { value, songs, onTake } = props;
  const others = songs.filter((s) => s !== value).slice(0, MOST_SONGS);
  return (
    <div>
      <label className="block">
        <span className="text-[0.8rem] text-soft">Song</span>
        <input
          className="field w-full"
          maxLength={80}
          value={value}
          onChange={(e) => onTake(e.target.value)}
        />
      </label>
      <p className="mt-1 flex flex-wrap gap-1 empty:hidden">
        {others.map((song) => (
          <button
            key={song}
            type="button"
            className="rounded-md border border-hair bg-card px-2 py-0.5 text-[0.82rem] pointer-coarse:min-h-10"
            onClick={() => onTake(song)}
          >
            {song}
          </button>
        ))}
      </p>
    </div>
  );
}

/** What the line will say was done. */
function SinceLast() {
  const ruler: Ruler = useMe();
  const { data } = useSince();
  if (!data) return null;
  const { last, changes } = data;
  if (!last) return <p className="text-[0.88rem]">The first line of this layout.</p>;
  return (
    <div className="text-[0.88rem]" data-since-last={changes.length}>
      <p className="text-soft">
        Since {when(last.at)}
        {changes.length ? ":" : " nothing was changed."}
      </p>
      <ul className="max-h-40 overflow-y-auto" aria-label="What changed since the last line">
        {changeLines(changes, ruler).map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </div>
  );
}

/** Lines that are kept here until they can be sent. */
function Unsent() {
  const waiting = useUnsentLines();
  if (!waiting.length) return null;
  return (
    <ul className="text-[0.88rem]" aria-label="Kept here, not sent yet">
      {waiting.map((e) => (
        <li key={String(e.body.key)} className="text-latetext">
          Kept here, not sent yet: {String(e.body.words || e.body.song || "a line without words")}
        </li>
      ))}
    </ul>
  );
}
