/** Long work that was asked for, looked after until it is over; a lost answer is asked for again. */
import { useEffect, useRef, useState } from "react";
import { fateOf } from "../api/client";
import type { Job } from "../api/types";

const LOOK_MS = 500;
const AWAY_MS = 3000;

export type Looked = Job & { over: boolean };

const lookedAt = (job: Job): Looked => ({
  ...job,
  over: job.state !== "waiting" && job.state !== "working",
});

export function useJob(
  look: (pk: number) => Promise<Job>,
  callOff: ((pk: number) => Promise<Job>) | null,
  onDone?: (job: Job) => void,
) {
  const [job, setJob] = useState<Looked | null>(null);
  const [bad, setBad] = useState("");
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const follow = (now: Job) => {
    setJob(lookedAt(now));
    if (!lookedAt(now).over) again(now.id, LOOK_MS);
    else if (now.state === "done") onDone?.(now);
  };
  const again = (pk: number, wait: number) => {
    timer.current = setTimeout(() => {
      look(pk)
        .then(follow)
        .catch((error: Error) => {
          if (fateOf(error) === "away" || fateOf(error) === "stranger") again(pk, AWAY_MS);
          else setBad(error.message);
        });
    }, wait);
  };
  const start = (asked: Promise<Job>) => {
    setBad("");
    setJob(null);
    asked.then(follow).catch((error: Error) => setBad(error.message));
  };
  const stop = () => {
    if (job && callOff)
      callOff(job.id)
        .then((now) => setJob(lookedAt(now)))
        .catch((error: Error) => setBad(error.message));
  };
  return { job, bad, start, stop };
}
