/** The chosen track: its level in figures, mute, pan, group, and what compresses it. */
import type { Board, Channel } from "../../../api/types";
import { LEAST_DB, LOUDEST_DB } from "../../../core/loudness";
import { dbText } from "../../../core/units";
import { useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { Tick } from "../../../parts/fields/Tick";
import { NumberField, OptionalField, TextField } from "../../../parts/fields/typed";
import { useTake } from "../../../parts/hands";
import type { Faders } from "./useFaders";

const CRUSHES: Record<string, Channel["crush"]> = {
  "not compressed": null,
  gentle: { threshold_db: 12, ratio: 3 },
  firm: { threshold_db: 20, ratio: 6 },
  hard: { threshold_db: 30, ratio: 20 },
};

/** As high with a track as without, so that the tapes stay where they are. */
const BOX = "min-h-[6.4rem] rounded-lg border border-hair p-2.5";

export function TrackPanel({ id, faders }: { id: string | null; faders: Faders }) {
  const track = useEditorPart((s) => s.still.channels?.find((c) => c.id === id));
  const up = useEditorPart((s) => s.board?.tracks.find((t) => t.id === id));
  if (!track || !up)
    return (
      <p className={`${BOX} text-[0.86rem] text-soft`}>
        Drag a flag, or use the arrow keys (with Shift six at a time), M to mute, Home for the usual
        level.
      </p>
    );
  return (
    <section aria-label={`Track ${track.id}`} className={BOX}>
      <p className="text-[0.88rem]">
        <span className="font-semibold">{track.name}</span>
        <span className="text-soft"> {said(up)}</span>
      </p>
      <Fields track={track} up={up} faders={faders} />
    </section>
  );
}

interface FieldsProps {
  track: Channel;
  up: Board["tracks"][number];
  faders: Faders;
}

function Fields({ track, up, faders }: FieldsProps) {
  const take = useTake();
  const change = (fields: Partial<Channel>) =>
    void take({ do: "channels", channels: [{ ...track, ...fields }], why: "" });
  return (
    <div className="mt-1.5 grid grid-cols-[6rem_6rem_8rem_9rem_auto] items-end gap-2 narrow:flex narrow:flex-wrap">
      <NumberField
        label="Level, dB"
        value={up.db}
        digits={1}
        low={LEAST_DB}
        high={LOUDEST_DB}
        onTake={(db) => faders.onTake(track.id, db)}
      />
      <OptionalField
        label="Pan %, − left"
        value={track.pan ?? null}
        low={-100}
        high={100}
        onTake={(pan) => change({ pan })}
      />
      <TextField
        label="Faded with, group"
        value={track.group ?? ""}
        wrong="at most 80 letters"
        onTake={(v) => {
          if (v.length > 80) return false;
          change({ group: v || null });
          return true;
        }}
      />
      <Pick
        label="Recorded through"
        value={nameOf(track.crush)}
        options={Object.keys(CRUSHES)}
        onTake={(v) => change({ crush: CRUSHES[v] ?? null })}
      />
      <Tick checked={!up.heard} onTake={() => faders.onMute(track.id)}>
        Muted
      </Tick>
    </div>
  );
}

function said(up: { db: number; usual_db: number; set: boolean; heard: boolean; why: string }) {
  if (!up.heard) return `is not heard: ${up.why}.`;
  if (up.set) return `is set; usual is ${dbText(up.usual_db)} dB.`;
  return `is as usual${up.why ? `: ${up.why}` : ""}.`;
}

function nameOf(crush: Channel["crush"]): string {
  if (!crush) return "not compressed";
  const found = Object.entries(CRUSHES).find(([, c]) => c?.ratio === crush.ratio);
  return found?.[0] ?? "firm";
}
