/** How far long work is, with its way to stop, or why it ended. */
import type { Job } from "../api/types";

export function JobProgress(props: { job: Job | null; bad: string; onStop?: () => void }) {
  const { job, bad, onStop } = props;
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
      <span className="text-[0.85rem] text-soft">{job.words}</span>
      {onStop && (
        <button type="button" className="btn px-2 py-1" onClick={onStop}>
          Stop
        </button>
      )}
    </>
  );
}
