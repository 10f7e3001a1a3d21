/** What a mic is: its pattern, role, job, input, which of the locker, and its names. */
import type { Mic, Pattern, Role } from "../../../api/types";
import { channelOf } from "../../../core/edits";
import { partsOf } from "../../../core/kitParts";
import { useEditorPart, useLit } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { NameField, TextField } from "../../../parts/fields/typed";
import { useChangeMic, useChangeTracks, useTake } from "../../../parts/hands";
import { useLocker } from "../../../parts/stock";

const PATTERNS: Pattern[] = [
  "omni",
  "wide cardioid",
  "cardioid",
  "supercardioid",
  "hypercardioid",
  "figure-8",
];
const ROLES: Role[] = ["close", "overhead", "room"];
const KEY = /^[A-Za-z0-9][A-Za-z0-9_.+-]{0,15}$/;

export function WhatFor({ mic }: { mic: Mic }) {
  const change = useChangeMic();
  const doc = useEditorPart((s) => s.still);
  const parts = partsOf(doc);
  return (
    <div className="grid grid-cols-2 gap-2">
      <Pick
        label="Pattern"
        value={mic.pattern}
        options={PATTERNS}
        onTake={(v) => change(mic.id, { pattern: v as Pattern })}
      />
      <Pick
        label="Role"
        value={mic.role}
        options={ROLES}
        onTake={(v) => change(mic.id, { role: v as Role })}
      />
      <Pick
        label="For"
        value={mic.job ?? ""}
        options={["", ...parts.map((p) => p.id)]}
        names={{ "": "whole kit" }}
        onTake={(v) => change(mic.id, { job: v || null })}
      />
      <Input mic={mic} />
      <LowCut mic={mic} />
      <FromLocker mic={mic} />
      <Names mic={mic} />
    </div>
  );
}

function LowCut({ mic }: { mic: Mic }) {
  const change = useChangeTracks();
  const track = useEditorPart((s) => channelOf(s.still, mic.id));
  if (!track) return null;
  return (
    <TextField
      label="Low cut, Hz"
      value={track.low_cut_hz ? String(track.low_cut_hz) : ""}
      wrong="10 to 500, or empty"
      onTake={(v) => {
        const n = Number(v.replace(",", "."));
        if (v !== "" && !(n >= 10 && n <= 500)) return false;
        change(mic.id, { low_cut_hz: v === "" ? null : n });
        return true;
      }}
    />
  );
}

function Input({ mic }: { mic: Mic }) {
  const take = useTake();
  const doc = useEditorPart((s) => s.still);
  const track = channelOf(doc, mic.id);
  if (!track) return <NotRecorded mic={mic} />;
  return (
    <TextField
      label="Input"
      value={track.input ? String(track.input) : ""}
      wrong="1 to 256"
      onTake={(v) => {
        const n = Number(v);
        if (v !== "" && !(Number.isInteger(n) && n >= 1 && n <= 256)) return false;
        const channels = [{ ...track, input: v === "" ? null : n }];
        void take({ do: "channels", channels, why: "" });
        return true;
      }}
    />
  );
}

function NotRecorded({ mic }: { mic: Mic }) {
  const take = useTake();
  return (
    <button
      type="button"
      className="btn self-end"
      onClick={() => void take({ do: "add-channel", mic: mic.id })}
    >
      Record it
    </button>
  );
}

function FromLocker({ mic }: { mic: Mic }) {
  const change = useChangeMic();
  const locker = useLocker().data?.locker;
  return (
    <>
      <Pick
        label="Mic"
        value={mic.model ?? ""}
        options={["", ...names(locker?.mics, mic.model)]}
        names={{ "": "not chosen", ...titles(locker?.mics) }}
        disabled={!locker}
        onTake={(v) => change(mic.id, { model: v || null })}
      />
      <Pick
        label="Stand"
        value={mic.stand ?? ""}
        options={["", ...names(locker?.stands, mic.stand)]}
        names={{ "": "not chosen", ...titles(locker?.stands) }}
        disabled={!locker}
        onTake={(v) => change(mic.id, { stand: v || null })}
      />
    </>
  );
}

function Names({ mic }: { mic: Mic }) {
  const doc = useEditorPart((s) => s.still);
  const change = useChangeMic();
  const take = useTake();
  const lit = useLit();
  const rename = async (to: string) => {
    if (await take({ do: "rename", was: mic.id, to })) lit.select(to);
  };
  return (
    <>
      <TextField
        label="Short name"
        value={mic.id}
        wrong="one word, not taken"
        onTake={(v) => {
          if (doc.mics.some((m) => m.id === v) || !KEY.test(v)) return false;
          void rename(v);
          return true;
        }}
      />
      <NameField label="Name" value={mic.name} onTake={(v) => change(mic.id, { name: v })} />
    </>
  );
}

/** Short names to choose from; one that is no longer in the locker stays visible. */
function names(rows: { id: string }[] | undefined, now: string | null | undefined): string[] {
  const ids = (rows ?? []).map((r) => r.id);
  return now && !ids.includes(now) ? [...ids, now] : ids;
}

function titles(rows: { id: string; name: string }[] | undefined): Record<string, string> {
  return Object.fromEntries((rows ?? []).map((r) => [r.id, r.name]));
}
