/** What the side that is heard begins as, and keeping on the tracks what was found by ear. */
import { useState } from "react";
import { api, must } from "../../../api/client";
import type { AlignRow, TakeHeard } from "../../../api/types";
import { asAligned, asCame, asPlanned } from "../../../core/ways";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useTake } from "../../../parts/hands";
import { usualReference } from "../Align";
import { changedFrom, type Sides } from "./useSides";

interface Props {
  take: number;
  job: number;
  heard: TakeHeard;
  sides: Sides;
}

export function Begin({ take, job, heard, sides }: Props) {
  const { tracks } = heard;
  const { side, begin } = sides;
  return (
    <div className="flex flex-wrap items-end gap-2 text-[0.88rem]" data-begin={side}>
      <span className="self-center">Set {side}:</span>
      <button type="button" className="btn" onClick={() => begin("as recorded", asCame(tracks))}>
        as recorded
      </button>
      <button type="button" className="btn" onClick={() => begin("as planned", asPlanned(tracks))}>
        as planned
      </button>
      <Aligned {...{ take, job, heard, sides }} />
      <Keep sides={sides} heard={heard} />
    </div>
  );
}

function Aligned({ take, job, heard, sides }: Props) {
  const names = heard.tracks.map((t) => t.channel);
  const editor = useEditor();
  const [to, setTo] = useState(() => usualReference(names, editor.snapshot().still));
  const [bad, setBad] = useState("");
  const aligned = () => {
    setBad("");
    const path = { pk: take, job };
    must<AlignRow[]>(
      api.GET("/api/takes/{pk}/measures/{job}/align", { params: { path, query: { to } } }),
    ).then(
      (rows) => sides.begin(`aligned to ${to}`, asAligned(heard.tracks, rows)),
      (error: Error) => setBad(error.message),
    );
  };
  return (
    <>
      <button type="button" className="btn" onClick={aligned}>
        aligned to
      </button>
      <Pick label="Aligned to" hideLabel value={to} options={names} onTake={setTo} />
      {bad && <p role="alert">{bad}</p>}
    </>
  );
}

/** The plan's tracks as they are heard: one step, with undo. */
function Keep({ sides, heard }: { sides: Sides; heard: TakeHeard }) {
  const take = useTake();
  const editor = useEditor();
  const { shifts } = sides.sides[sides.side];
  const own = useEditorPart((s) => s.still.channels);
  const changed = changedFrom(heard.tracks, shifts).filter((c) => own?.some((x) => x.id === c));
  if (!changed.length) return null;
  const per_sample = (editor.snapshot().still.sample_rate_hz ?? heard.rate_hz) / heard.rate_hz;
  const names = changed.length > 3 ? `${changed.length} tracks` : changed.join(", ");
  const keep = () => {
    const channels = (editor.snapshot().still.channels ?? [])
      .filter((c) => changed.includes(c.id))
      .map((c) => ({
        ...c,
        track_flip: shifts[c.id]?.flip ?? false,
        track_delay_samples: Math.round((shifts[c.id]?.later ?? 0) * per_sample),
      }));
    if (channels.length) void take({ do: "channels", channels, why: `Tracks as heard: ${names}` });
  };
  return (
    <button type="button" className="btn" onClick={keep}>
      Keep this on the tracks: {names}
    </button>
  );
}
