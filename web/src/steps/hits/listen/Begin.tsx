/** What the side that is heard begins as, and keeping on the tracks what was found by ear. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../../api/client";
import type { AlignRow, TakeNamed } from "../../../api/types";
import { asAligned, asCame, asPlanned } from "../../../core/ways";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useTake } from "../../../parts/hands";
import { JobProgress } from "../../../parts/JobProgress";
import { usualReference } from "../Align";
import type { Listened } from "./useListen";
import { changedFrom, type Sides } from "./useSides";

export function Begin({ on }: { on: Listened }) {
  const { sides } = on;
  const { side, begin, deck } = sides;
  const { tracks } = deck.heard;
  return (
    <div className="flex flex-wrap items-end gap-2 text-[0.88rem]" data-begin={side}>
      <span className="self-center">Set {side}:</span>
      <OfTake on={on} />
      <button type="button" className="btn" onClick={() => begin("as recorded", asCame(tracks))}>
        as recorded
      </button>
      <button type="button" className="btn" onClick={() => begin("as planned", asPlanned(tracks))}>
        as planned
      </button>
      <Aligned key={deck.take} sides={sides} />
      <Keep sides={sides} />
    </div>
  );
}

/** Which take the side is of: the open one, or any other of the session. */
function OfTake({ on: { sides, other } }: { on: Listened }) {
  const { own, deck, side, put } = sides;
  const session = useEditorPart((s) => s.out.session_id);
  const layout = useEditorPart((s) => s.out.id);
  const found = useQuery({
    queryKey: ["takes", "session", session],
    queryFn: () =>
      must<TakeNamed[]>(api.GET("/api/sessions/{pk}/takes", { params: { path: { pk: session } } })),
    refetchOnMount: "always",
  });
  const every = (found.data ?? []).filter((t) => t.id !== own.take);
  if (!every.length) return null;
  const named = (t: TakeNamed) => (t.layout_id === layout ? t.name : `${t.name} (${t.layout})`);
  const names = Object.fromEntries(every.map((t) => [String(t.id), named(t)]));
  const choose = (id: string) => {
    const take = every.find((t) => String(t.id) === id);
    if (take) other.choose({ ...take, name: named(take) }, side);
    else put(side, own);
  };
  return (
    <>
      <Pick
        label={`Take of ${side}`}
        hideLabel
        value={String(deck.take)}
        options={[String(own.take), ...every.map((t) => String(t.id))]}
        names={{ [String(own.take)]: own.name, ...names }}
        onTake={choose}
      />
      <JobProgress job={other.job} bad={other.bad} doing="Measuring the other take…" />
    </>
  );
}

function Aligned({ sides }: { sides: Sides }) {
  const { heard, take, job } = sides.deck;
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
function Keep({ sides }: { sides: Sides }) {
  const take = useTake();
  const editor = useEditor();
  const { heard } = sides.deck;
  const { shifts } = sides.sides[sides.side];
  const own = useEditorPart((s) => s.still.channels);
  const changed = changedFrom(heard.tracks, shifts).filter((c) => own?.some((x) => x.id === c));
  // Of the other take the plan may be another one.
  if (!changed.length || sides.deck !== sides.own) return null;
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
