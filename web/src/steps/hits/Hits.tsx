/** Test hits: what to ask the drummer for, takes taken in, and what they say of the layout. */
import { useState } from "react";
import type { Take } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { NoMics } from "../../parts/NoMics";
import { useAskedTakes } from "../../parts/takes";
import { Play } from "./Play";
import { TakeIn } from "./TakeIn";
import { TakeList } from "./TakeList";
import { TakeSays } from "./TakeSays";
import { useSending } from "./useSending";
import { useTakes, whole } from "./useTakes";

const VIEWS = [
  ["play", "To play"],
  ["takes", "Takes"],
] as const;

type View = (typeof VIEWS)[number][0];

export function Hits() {
  const ready = useEditorPart((s) => s.still.mics.length > 0 && s.still.kit.drums.length > 0);
  const [view, setView] = useState<View | null>(null);
  if (!ready) return <NoMics words="Nothing to hit yet." />;
  return (
    <div className="h-full overflow-y-auto bg-panel">
      <h1 className="sr-only">Hits</h1>
      <div className="mx-auto max-w-[1200px] space-y-3 p-3">
        <Takes view={view} setView={setView} />
      </div>
    </div>
  );
}

/** Without a take there is something to play first. */
function Takes({ view, setView }: { view: View | null; setView: (v: View) => void }) {
  const takes = useTakes();
  const asked = useAskedTakes();
  const [chosen, choose] = useState(asked.take);
  const sending = useSending(takes.layout, (take) => {
    choose(take);
    void takes.again();
  });
  const every = takes.found.data?.takes ?? [];
  const now = view ?? (every.length ? "takes" : "play");
  const take = every.find((t) => t.id === chosen) ?? every.find(whole);
  return (
    <>
      <Segmented label="What to see" value={now} options={VIEWS} onTake={setView} />
      {takes.found.error && <p role="alert">{takes.found.error.message}</p>}
      {now === "play" && <Play onRecorded={() => setView("takes")} />}
      {now === "takes" && takes.found.data && (
        <div className="grid gap-4 min-[900px]:grid-cols-[270px_minmax(0,1fr)]">
          <div className="space-y-3">
            <TakeList {...{ takes, sending, chosen: take?.id ?? null, choose }} />
            <TakeIn {...{ takes, sending, choose }} />
          </div>
          {take && whole(take) ? (
            <TakeSays key={take.id} {...{ take, takes }} listen={take.id === asked.take} />
          ) : (
            <NoSound take={take} />
          )}
        </div>
      )}
    </>
  );
}

/** What to do where there is no take yet, or none of one's sound. */
function NoSound({ take }: { take: Take | undefined }) {
  return (
    <p className="max-w-prose text-soft">
      {take
        ? `${take.name} says nothing before its sound is here: give it the files it was recorded in.`
        : "Take in what was recorded: one file of many channels, or one of each. WAV, RF64, W64, AIFF or FLAC, as the recorder wrote them."}
    </p>
  );
}
