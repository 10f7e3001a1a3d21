/** How far long work is, with its way to stop, or why it ended. */
import type { Job } from "../api/types";

interface Props {
  job: Job | null;
  bad: string;
  /** What is done, until the job itself says how far it is. */
  doing: string;
  onStop?: () => void;
}

export function JobProgress({ job, bad, doing, onStop }: Props) {
  if (bad || job?.state === "failed")
    return (
      <p role="alert" className="max-w-md text-hollow">
        {bad || job?.words}
      </p>
    );
  if (job?.state === "cancelled") return <p className="text-soft">Called off.</p>;
  if (job?.state !== "waiting" && job?.state !== "working") return null;
  return (
    <>
      <progress max={1} value={job.progress} aria-label="How far it is" />
      <span className="text-[0.85rem] text-soft">{job.words || doing}</span>
      {onStop && (
        <button type="button" className="btn px-2 py-1" onClick={onStop}>
          Stop
        </button>
      )}
    </>
  );
}
