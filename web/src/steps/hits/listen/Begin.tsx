/** What the side that is heard begins as, and keeping on the tracks what was found by ear. */
import { useEffect, useRef, useState } from "react";
import { api, must } from "../../../api/client";
import type { AlignRow, TakeNamed } from "../../../api/types";
import { asAligned, asCame, asPlanned } from "../../../core/ways";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useTake } from "../../../parts/hands";
import { JobProgress } from "../../../parts/JobProgress";
import { takeName, useAskedTakes, useSessionTakes } from "../../../parts/takes";
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
  const layout = useEditorPart((s) => s.out.id);
  const found = useSessionTakes();
  const every = (found.data ?? [])
    .filter((t) => t.id !== own.take)
    .map((t) => ({ ...t, name: takeName(t, layout) }));
  const names = Object.fromEntries(every.map((t) => [String(t.id), t.name]));
  const choose = (id: string) => {
    const take = every.find((t) => String(t.id) === id);
    if (take) other.choose(take, side);
    else put(side, own);
  };
  useAskedFor(sides, other, every);
  if (!every.length) return null;
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

/** Whoever comes to hear two takes has the other on the second side, once. */
function useAskedFor({ own }: Sides, other: Listened["other"], every: readonly TakeNamed[]) {
  const asked = useAskedTakes();
  const done = useRef(false);
  useEffect(() => {
    const take = asked.take === own.take ? every.find((t) => t.id === asked.against) : undefined;
    if (!take || done.current || other.other) return;
    done.current = true;
    other.choose(take, "B");
  });
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
