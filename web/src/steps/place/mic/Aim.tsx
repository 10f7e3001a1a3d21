/** Where a mic looks, what of it is held, and every switch on the way to the track. */
import { useMutation } from "@tanstack/react-query";
import { api, exactly } from "../../../api/client";
import type { Lock, Mic } from "../../../api/types";
import { channelOf } from "../../../core/edits";
import { partsOf } from "../../../core/kitParts";
import { MIC_SWITCHES, TRACK_SWITCHES } from "../../../core/words";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Flip } from "../../../parts/fields/Flip";
import { Pick } from "../../../parts/fields/Pick";
import { Tick } from "../../../parts/fields/Tick";
import { useChangeMic, useChangeTracks } from "../../../parts/hands";
import { useToast } from "../../../parts/toast";

const LOCKS: [Lock, string][] = [
  ["right", "Sideways"],
  ["front", "To and fro"],
  ["height", "Up and down"],
  ["aim", "Its turn"],
  ["polarity", "Its polarity"],
];

export function AimAt({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const still = useEditorPart((s) => s.still);
  const words = useEditorPart((s) => s.board?.aim[mic.id]);
  const change = useChangeMic();
  const say = useToast();
  const aimAt = useMutation({
    mutationFn: (target: string) =>
      exactly<{ aim: Mic["aim"] }>(
        api.POST("/api/aim-at", {
          body: { layout: editor.snapshot().still, mic: mic.id, target },
        }),
      ),
    onSuccess: ({ aim }) => change(mic.id, { aim }),
    onError: (e) => say(e.message),
  });
  const parts = partsOf(still);
  return (
    <div>
      <p className="text-[0.8rem] text-soft">
        Aim: <span data-aim-words>{words ?? "…"}</span>
      </p>
      <Pick
        label="Aim at"
        hideLabel
        className="w-full"
        value=""
        placeholder="aim it at …"
        options={[...parts.map((p) => p.id), "down", "up"]}
        names={{
          ...Object.fromEntries(parts.map((p) => [p.id, p.name])),
          down: "straight down",
          up: "straight up",
        }}
        onTake={(target) => aimAt.mutate(target)}
      />
    </div>
  );
}

/** The locks of a mic with one put on or taken off. */
export function lockedWith(mic: Mic, lock: Lock, on: boolean): Lock[] {
  const others = (mic.locks ?? []).filter((l) => l !== lock);
  return on ? [...others, lock] : others;
}

export function Holds({ mic }: { mic: Mic }) {
  const change = useChangeMic();
  return (
    <fieldset className="text-[0.9rem]">
      <legend className="mb-0.5 font-bold">Hold in place</legend>
      <div className="flex flex-wrap gap-x-4">
        {LOCKS.map(([lock, words]) => (
          <Tick
            key={lock}
            checked={(mic.locks ?? []).includes(lock)}
            onTake={(on) =>
              change(
                mic.id,
                { locks: lockedWith(mic, lock, on) },
                { why: `${on ? "Hold" : "Free"} ${mic.id}: ${lock}` },
              )
            }
          >
            {words}
          </Tick>
        ))}
      </div>
    </fieldset>
  );
}

export function Polarity({ mic }: { mic: Mic }) {
  const change = useChangeMic();
  const changeTracks = useChangeTracks();
  const track = useEditorPart((s) => channelOf(s.still, mic.id));
  return (
    <fieldset className="space-y-1 text-[0.9rem]">
      <legend className="mb-0.5 font-bold">Polarity, capsule to track</legend>
      {track &&
        TRACK_SWITCHES.map(([key, label]) => (
          <Flip
            key={key}
            label={label}
            on={track[key]}
            onTake={(on) => changeTracks(mic.id, { [key]: on })}
          />
        ))}
      {MIC_SWITCHES.map(([key, label]) => (
        <Flip
          key={key}
          label={label}
          on={mic[key]}
          onTake={(on) => change(mic.id, { [key]: on })}
        />
      ))}
    </fieldset>
  );
}
