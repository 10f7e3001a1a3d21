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
  /** What was asked for last: nothing that comes of what was asked for before counts. */
  const last = useRef<Promise<Job> | null>(null);
  useEffect(() => () => clearTimeout(timer.current), []);
  const follow = (asked: Promise<Job>, now: Job) => {
    if (last.current !== asked) return;
    setJob(lookedAt(now));
    if (!lookedAt(now).over) again(asked, now.id, LOOK_MS);
    else if (now.state === "done") onDone?.(now);
  };
  const failed = (asked: Promise<Job>, error: Error) => {
    if (last.current === asked) setBad(error.message);
  };
  const again = (asked: Promise<Job>, pk: number, wait: number) => {
    timer.current = setTimeout(() => {
      look(pk)
        .then((now) => follow(asked, now))
        .catch((error: Error) => {
          const unanswered = fateOf(error) === "away" || fateOf(error) === "stranger";
          if (unanswered && last.current === asked) again(asked, pk, AWAY_MS);
          else failed(asked, error);
        });
    }, wait);
  };
  const start = (asked: Promise<Job>) => {
    clearTimeout(timer.current);
    last.current = asked;
    setBad("");
    setJob(null);
    asked.then((now) => follow(asked, now)).catch((error: Error) => failed(asked, error));
  };
  const stop = () => {
    if (job && callOff)
      callOff(job.id)
        .then((now) => setJob(lookedAt(now)))
        .catch((error: Error) => setBad(error.message));
  };
  return { job, bad, start, stop };
}
