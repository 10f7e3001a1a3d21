/** What a take says: in a sentence, what to do about it, then drum by drum. */
import { useState } from "react";
import type { Take, TakeTold } from "../../api/types";
import { Segmented } from "../../parts/fields/Segmented";
import { JobProgress } from "../../parts/JobProgress";
import { Align } from "./Align";
import { DrumSays } from "./DrumSays";
import { Listen } from "./listen/Listen";
import { PlacesHeard } from "./PlacesHeard";
import { Reasons } from "./Reasons";
import { Since } from "./Since";
import { Strokes } from "./Strokes";
import { Tracks } from "./Tracks";
import { Truth } from "./Truth";
import { useMeasured } from "./useMeasured";
import type { TakesHere } from "./useTakes";

const PARTS = [
  ["drums", "Drums"],
  ["strokes", "Strokes"],
  ["tracks", "Tracks"],
  ["places", "Places"],
  ["align", "Align"],
  ["listen", "Listen"],
  ["since", "Compare"],
] as const;

interface Props {
  take: Take;
  takes: TakesHere;
  /** Somebody came here to listen to it. */
  listen: boolean;
}

export function TakeSays({ take, takes, listen }: Props) {
  const { job, bad, stop, done, told, fault } = useMeasured(take);
  const [part, setPart] = useState<(typeof PARTS)[number][0]>(listen ? "listen" : "drums");
  return (
    <section aria-label={`What ${take.name} says`} className="min-w-0 space-y-3">
      <div className="flex flex-wrap items-center gap-2 empty:hidden">
        <JobProgress
          job={job}
          bad={bad || (fault?.message ?? "")}
          doing="Measuring the hits…"
          onStop={stop}
        />
      </div>
      {told && (
        <div aria-busy={job !== null && !job.over} className="space-y-3">
          <p className="text-[1.05rem]" data-says>
            {told.words}
          </p>
          <Reasons take={take} takes={takes} told={told} />
          <Segmented label="Of the take" value={part} options={PARTS} onTake={setPart} />
          <Part {...{ part, take, takes, told, job: done }} />
          <Truth take={take} />
        </div>
      )}
    </section>
  );
}

interface PartProps {
  part: (typeof PARTS)[number][0];
  take: Take;
  takes: TakesHere;
  told: TakeTold;
  job: number | null;
}

function Part({ part, take, takes, told, job }: PartProps) {
  if (part === "strokes") return <Strokes {...{ take, takes, told }} />;
  if (part === "tracks") return <Tracks {...{ take, takes, told }} />;
  if (part === "places") return <PlacesHeard told={told} />;
  if (part === "align") return <Align {...{ take: take.id, told, job }} />;
  if (part === "listen") return <Listen {...{ take, told, job }} />;
  if (part === "since") return <Since {...{ take, takes }} />;
  return <DrumSays {...{ take: take.id, told, job }} />;
}
