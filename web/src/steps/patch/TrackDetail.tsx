/** One track: its mic and input, what is switched on the way, and how much headroom is left. */
import type { Channel, Mic } from "../../api/types";
import { channelsOf, micOf } from "../../core/edits";
import { TRACK_SWITCHES } from "../../core/words";
import { useEditorPart } from "../../parts/editing";
import { Flip } from "../../parts/fields/Flip";
import { Pick } from "../../parts/fields/Pick";
import { Tick } from "../../parts/fields/Tick";
import { NameField, OptionalField, TextField } from "../../parts/fields/typed";
import { useChangeMic, useTake } from "../../parts/hands";
import { MicTag } from "../../parts/MicTag";
import { useLocker } from "../../parts/stock";
import { Ladder } from "./Ladder";

interface Props {
  id: string | null;
  onChoose: (id: string) => void;
}

export function TrackDetail({ id, onChoose }: Props) {
  const doc = useEditorPart((s) => s.still);
  const track = doc.channels?.find((c) => c.id === id);
  const mic = track && micOf(doc, track.mic);
  if (!track || !mic)
    return (
      <p className="border-t border-hair pt-3 text-[0.86rem] text-soft">
        Drag a mic or a track to a socket, or choose a track and press its socket. By keys: ← and →
        to the next free input, Delete to pull it out, ↑ and ↓ to the next track, with Alt to move
        it.
      </p>
    );
  return (
    <section aria-label={`Track ${track.id}`} className="space-y-2 border-t border-hair pt-3">
      <header className="flex items-center gap-2">
        <MicTag mic={mic} layout={doc} lit />
        <h2 className="truncate text-[1.02rem]">{track.name}</h2>
      </header>
      <Ladder track={track} />
      <Fields track={track} mic={mic} />
      <Switches track={track} />
      <Splits track={track} onChoose={onChoose} />
    </section>
  );
}

function useChange(track: Channel) {
  const take = useTake();
  return (fields: Partial<Channel>) =>
    void take({ do: "channels", channels: [{ ...track, ...fields }], why: "" });
}

function Fields({ track, mic }: { track: Channel; mic: Mic }) {
  const change = useChange(track);
  return (
    <div className="grid grid-cols-2 gap-2">
      <NameField label="Name of the track" value={track.name} onTake={(name) => change({ name })} />
      <TextField
        label="Input"
        value={track.input ? String(track.input) : ""}
        wrong="1 to 256, or empty"
        onTake={(v) => {
          const n = Number(v);
          if (v !== "" && !(Number.isInteger(n) && n >= 1 && n <= 256)) return false;
          change({ input: v === "" ? null : n });
          return true;
        }}
      />
      <Pads track={track} mic={mic} />
      <OptionalField
        label="Gain, dB"
        value={track.gain_db ?? null}
        low={-20}
        high={100}
        onTake={(gain_db) => change({ gain_db })}
      />
      <OptionalField
        label="Low cut, Hz"
        value={track.low_cut_hz ?? null}
        low={10}
        high={500}
        onTake={(low_cut_hz) => change({ low_cut_hz })}
      />
      <Pick
        label="Phantom"
        value={track.phantom == null ? "" : track.phantom ? "on" : "off"}
        options={["", "on", "off"]}
        names={{ "": "as the mic wants it" }}
        onTake={(v) => change({ phantom: v === "" ? null : v === "on" })}
      />
    </div>
  );
}

const none = "none";

function Pads({ track, mic }: { track: Channel; mic: Mic }) {
  const change = useChange(track);
  const changeMic = useChangeMic();
  const locker = useLocker().data?.locker;
  const own = locker?.mics?.find((m) => m.id === mic.model)?.pads_db ?? [];
  return (
    <>
      <Pick
        label="Pad at the mic"
        value={mic.pad_db ? String(mic.pad_db) : none}
        options={[none, ...padsOf(own, mic.pad_db)]}
        names={Object.fromEntries(padsOf(own, mic.pad_db).map((p) => [p, `${p} dB`]))}
        onTake={(v) => changeMic(mic.id, { pad_db: v === none ? null : Number(v) })}
      />
      <OptionalField
        label="Pad at the input, dB"
        value={track.pad_db ?? null}
        low={1}
        high={60}
        onTake={(pad_db) => change({ pad_db })}
      />
    </>
  );
}

function padsOf(there: readonly number[], now: number | null | undefined): string[] {
  const all = now && !there.includes(now) ? [...there, now] : [...there];
  return all.sort((a, b) => a - b).map(String);
}

function Switches({ track }: { track: Channel }) {
  const change = useChange(track);
  return (
    <div className="space-y-1 text-[0.9rem]">
      {TRACK_SWITCHES.map(([key, label]) => (
        <Flip key={key} label={label} on={track[key]} onTake={(on) => change({ [key]: on })} />
      ))}
      <Tick checked={track.fixed} onTake={(fixed) => change({ fixed })}>
        Keep it in this input
      </Tick>
    </div>
  );
}

function Splits({ track, onChoose }: { track: Channel; onChoose: (id: string) => void }) {
  const doc = useEditorPart((s) => s.still);
  const take = useTake();
  const others = channelsOf(doc, track.mic).filter((c) => c.id !== track.id);
  const split = async () => {
    const done = await take({ do: "add-channel", mic: track.mic });
    if (done?.made) onChoose(done.made);
  };
  const away = () => void take({ do: "remove-channels", channels: [track.id] });
  return (
    <div className="space-y-1.5">
      {others.length > 0 && (
        <p className="text-[0.85rem] text-soft">
          Split of one mic with{" "}
          {others.map((c) => (
            <button
              key={c.id}
              type="button"
              className="mr-1.5 font-semibold underline"
              onClick={() => onChoose(c.id)}
            >
              {c.name}
            </button>
          ))}
        </p>
      )}
      <div className="flex gap-2">
        <button type="button" className="btn flex-1" onClick={() => void split()}>
          Split {track.mic}
        </button>
        <button type="button" className="btn flex-1" onClick={away}>
          Do not record
        </button>
      </div>
    </div>
  );
}
