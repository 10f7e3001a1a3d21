/** A take taken in from files, with how far it is, or played by the simulated recorder. */
import { useRef, useState } from "react";
import { api, must } from "../../api/client";
import type { Job, Takes } from "../../api/types";
import { megabytes } from "../../core/bytes";
import { newKey } from "../../core/key";
import { Ask } from "../../parts/Ask";
import { Tick } from "../../parts/fields/Tick";
import { JobProgress } from "../../parts/JobProgress";
import { useJob } from "../../parts/useJob";
import type { OnTheWay, Sending } from "./useSending";
import type { TakesHere } from "./useTakes";

interface Props {
  takes: TakesHere;
  sending: Sending;
  choose: (take: number) => void;
}

export function TakeIn({ takes, sending, choose }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const { on, bad, start } = sending;
  return (
    <section aria-label="Take in" className="space-y-2">
      <input
        ref={input}
        type="file"
        multiple
        accept=".wav,.w64,.rf64,.bwf,.aif,.aiff,.flac"
        className="hidden"
        aria-label="Sound files"
        onChange={(e) => {
          void start([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      {on ? (
        <Underway on={on} stop={sending.stop} />
      ) : (
        <button type="button" className="btn-main w-full" onClick={() => input.current?.click()}>
          Take in files
        </button>
      )}
      {bad && <p role="alert">{bad}</p>}
      <Simulated takes={takes} choose={choose} />
      <Room takes={takes.found.data} />
    </section>
  );
}

function Underway({ on, stop }: { on: OnTheWay; stop: () => void }) {
  return (
    <div data-sending>
      <progress className="w-full" max={on.of} value={on.there} aria-label="Taking in" />
      <p className="flex justify-between text-[0.85rem]">
        <span className={on.waiting ? "text-latetext" : "text-soft"}>
          {on.waiting
            ? "The line is cut; it goes on by itself"
            : `${megabytes(on.there)} of ${megabytes(on.of)}`}
        </span>
        <button type="button" className="underline" onClick={stop}>
          Stop
        </button>
      </p>
    </div>
  );
}

function Room({ takes }: { takes: Takes | undefined }) {
  if (!takes) return null;
  return (
    <p className="text-[0.8rem] text-soft">
      {megabytes(takes.kept)} of {megabytes(takes.most)} of this studio are used.
    </p>
  );
}

const WRONG = [
  ["moved", "a mic stands elsewhere"],
  ["inverted", "a channel is turned over"],
  ["late", "a track is late"],
  ["swapped", "two tracks are swapped"],
  ["shifted", "a row of plugs is one on"],
  ["hum", "a track hums"],
  ["clipped", "a track clips"],
] as const;
type Wrong = (typeof WRONG)[number][0];

/** A stand-in for a recorder: the layout played in its room, set up right or wrong. */
function Simulated({ takes, choose }: Omit<Props, "sending">) {
  const [open, setOpen] = useState(false);
  const key = useRef("");
  const { job, bad, start } = useJob(
    (pk) => must<Job>(api.GET("/api/recordings/{pk}", { params: { path: { pk } } })),
    null,
    async () => {
      await takes.again();
      const made = takes.found.data?.takes.find((t) => t.key === key.current);
      if (made) choose(made.id);
    },
  );
  const record = (wrong: Wrong[]) => {
    setOpen(false);
    key.current = newKey();
    const seed = Math.floor(Math.random() * 100_000);
    const params = { path: { pk: takes.layout } };
    const body = { key: key.current, seed, wrong };
    start(must<Job>(api.POST("/api/layouts/{pk}/takes/simulated", { params, body })));
  };
  return (
    <>
      <button
        type="button"
        className="btn w-full"
        disabled={job !== null && !job.over}
        onClick={() => setOpen(true)}
      >
        Record a simulated take
      </button>
      <p className="flex items-center gap-2">
        <JobProgress job={job} bad={bad} doing="Recording…" />
      </p>
      <SetUpWrong open={open} onClose={() => setOpen(false)} onRecord={record} />
    </>
  );
}

interface SetUpProps {
  open: boolean;
  onClose: () => void;
  onRecord: (wrong: Wrong[]) => void;
}

function SetUpWrong({ open, onClose, onRecord }: SetUpProps) {
  const [wrong, setWrong] = useState<Wrong[]>(["moved", "inverted"]);
  return (
    <Ask
      open={open}
      onClose={onClose}
      title="A simulated take"
      about="Five hits on each drum, played through this layout in its room. What is set up wrong is drawn by chance, for you to find."
    >
      <fieldset className="space-y-1.5">
        <legend className="mb-1 font-semibold">Set up wrong</legend>
        {WRONG.map(([kind, words]) => (
          <Tick
            key={kind}
            checked={wrong.includes(kind)}
            onTake={(on) =>
              setWrong(on ? [...wrong, kind] : wrong.filter((other) => other !== kind))
            }
          >
            {words}
          </Tick>
        ))}
      </fieldset>
      <button type="button" className="btn-main mt-3" onClick={() => onRecord(wrong)}>
        Record it
      </button>
    </Ask>
  );
}
