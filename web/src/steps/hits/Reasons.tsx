/** Why the take differs from the plan, likeliest first, each with what to do about it. */
import type { Reason, TakeTold } from "../../api/types";
import { useEditor } from "../../parts/editing";
import { useTake } from "../../parts/hands";
import { Words } from "../../parts/Words";

export function Reasons({ told }: { told: TakeTold }) {
  if (!told.reasons.length) return null;
  return (
    <ol aria-label="Why it differs from the plan" className="space-y-2">
      {told.reasons.map((r) => (
        <li
          key={`${r.kind} ${r.channels.join(" ")}`}
          data-reason={r.kind}
          className="rounded-lg border border-hair bg-card p-3"
        >
          <p className="font-semibold">
            <Words of={r.words} />
          </p>
          <p className="text-soft">{r.do}</p>
          {r.kind === "turned over" && <Cure reason={r} />}
        </li>
      ))}
    </ol>
  );
}

/** The plan learns that it came in turned over; the track is flipped, so that all adds up again. */
function Cure({ reason }: { reason: Reason }) {
  const editor = useEditor();
  const take = useTake();
  const [id] = reason.channels;
  const cure = () => {
    const own = editor.snapshot().still.channels?.find((c) => c.id === id);
    if (!own) return;
    const turned = { ...own, preamp_flip: !own.preamp_flip, track_flip: !own.track_flip };
    void take({
      do: "channels",
      channels: [turned],
      why: `Noted that ${id} comes in turned over, and flipped its track`,
    });
  };
  return (
    <button type="button" className="btn mt-2" onClick={cure}>
      It is already recorded: note it, and flip the track of {id}
    </button>
  );
}
