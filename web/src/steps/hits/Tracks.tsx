/** The files of a take: which channel each is taken for, and what is wrong with it. */
import type { Take, TakeTold } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import type { TakesHere } from "./useTakes";

const BY = {
  said: "as you said",
  name: "by its name",
  left: "by what is left",
  number: "by its number",
  order: "by its order",
  heard: "by what it holds",
  nothing: "not matched",
} as const;
const NONE = "left out";

interface Props {
  take: Take;
  takes: TakesHere;
  told: TakeTold;
}

export function Tracks({ take, takes, told }: Props) {
  const doc = useEditorPart((s) => s.still);
  const channels = doc.channels?.length ? doc.channels : doc.mics;
  const say = (track: string, channel: string) =>
    takes.say.mutate({
      ...take,
      channels: { ...freed(take.channels, channel), [track]: channel === NONE ? null : channel },
    });
  return (
    <ul aria-label="Tracks" className="divide-y divide-hair text-[0.9rem]">
      {told.tracks.map((t) => (
        <li
          key={t.name}
          data-track-of={t.name}
          className="grid items-center gap-2 py-1.5 min-[700px]:grid-cols-[minmax(0,1fr)_170px_minmax(0,1fr)]"
        >
          <span className="min-w-0">
            <span className="block truncate">{t.name}</span>
            <span className="text-[0.8rem] text-soft">
              {t.container} {t.bits.replace("_", " ")}, {t.seconds.toFixed(1)} s
              {t.stamped && t.begins_s > 0 && `, begins ${t.begins_s.toFixed(3)} s later`}
              {t.peak_db !== null && `, peak ${t.peak_db.toFixed(1)} dB`}
            </span>
          </span>
          <Pick
            label={`Channel of ${t.name}`}
            hideLabel
            value={t.channel ?? NONE}
            options={[...channels.map((c) => c.id), NONE]}
            names={Object.fromEntries(channels.map((c) => [c.id, `${c.id} ${c.name}`]))}
            onTake={(c) => say(t.name, c)}
          />
          <span>
            <span className="text-soft">{BY[t.by]}</span>
            {t.notes.map((n) => (
              <span key={n} className="block font-semibold text-latetext">
                {n}
              </span>
            ))}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** A channel that is given to another track is no longer the one's that had it. */
const freed = (said: Take["channels"], channel: string) =>
  Object.fromEntries(Object.entries(said).filter(([, c]) => c !== channel));
