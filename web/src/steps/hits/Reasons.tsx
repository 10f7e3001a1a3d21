/** Why the take differs from the plan, likeliest first, each with what to do about it. */
import type { Reason, Take, TakeTold } from "../../api/types";
import { useEditor } from "../../parts/editing";
import { useTake } from "../../parts/hands";
import { Words } from "../../parts/Words";
import type { TakesHere } from "./useTakes";

interface Props {
  take: Take;
  takes: TakesHere;
  told: TakeTold;
}

export function Reasons({ take, takes, told }: Props) {
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
          {r.kind === "swapped" && (
            <Named
              tracks={told.tracks.filter((t) => r.channels.includes(t.channel ?? ""))}
              say={(channels) =>
                takes.say.mutate({ ...take, channels: { ...take.channels, ...channels } })
              }
            />
          )}
        </li>
      ))}
    </ol>
  );
}

interface NamedProps {
  tracks: TakeTold["tracks"];
  say: (channels: Take["channels"]) => void;
}

/** Where plugs are right and names are not, each track stays with what it holds. */
function Named({ tracks, say }: NamedProps) {
  const keep = () => say(Object.fromEntries(tracks.map((t) => [t.name, t.channel])));
  return (
    <button type="button" className="btn mt-2" onClick={keep}>
      Only the names are wrong: keep each track as what it holds
    </button>
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
