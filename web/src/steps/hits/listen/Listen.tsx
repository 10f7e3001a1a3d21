/** A take to be heard: a drum's hits over and over, two states of the tracks against each other. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { DrumHits, TakeHeard, TakeTold } from "../../../api/types";
import { chunks, type Span } from "../../../core/spans";
import { Segmented } from "../../../parts/fields/Segmented";
import { HitWaves } from "../HitWaves";
import { Against } from "./Against";
import { Begin } from "./Begin";
import { TrackRows } from "./TrackRows";
import { Transport } from "./Transport";
import { useListen } from "./useListen";

interface Props {
  take: number;
  told: TakeTold;
  job: number | null;
}

export function Listen({ take, told, job }: Props) {
  const heard = useQuery({
    queryKey: ["take heard", take, job],
    queryFn: () =>
      exactly<TakeHeard>(
        api.GET("/api/takes/{pk}/measures/{job}/listening", {
          params: { path: { pk: take, job: job ?? 0 } },
        }),
      ),
    enabled: job !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (heard.error && !heard.data) return <p role="alert">{heard.error.message}</p>;
  if (!heard.data || job === null) return <p className="text-soft">Getting it ready…</p>;
  if (!heard.data.tracks.length) return <p className="text-soft">No track to listen to.</p>;
  return <Desk key={job} {...{ take, told, job }} heard={heard.data} />;
}

const WHOLE = "whole take";

/** What is played: a drum's hits in a loop, or everything from a second before the first stroke. */
function usePlayed(heard: TakeHeard, told: TakeTold) {
  const [what, setWhat] = useState(heard.loops[0]?.source ?? WHOLE);
  const options = [...heard.loops.map((l) => [l.source, l.name] as const), [WHOLE, "Whole take"]];
  const loop = heard.loops.find((l) => l.source === what);
  const playing = useMemo(() => {
    if (loop) {
      const spans = loop.spans.map(([begin, count]): Span => ({ begin, count }));
      return { spans, loop: true };
    }
    const first = Math.max(0, Math.round(((told.hits[0]?.at_s ?? 0) - 1) * heard.rate_hz));
    return { spans: chunks(first, heard.samples, heard.rate_hz), loop: false };
  }, [loop, heard, told]);
  return { what, setWhat, options: options as [string, string][], loop, playing };
}

function Desk({ take, told, job, heard }: Props & { job: number; heard: TakeHeard }) {
  const played = usePlayed(heard, told);
  const drum = told.drums.find((d) => d.source === played.what);
  const on = useListen(take, job, heard, played.playing);
  return (
    <div className="space-y-3" data-listen={on.sound.on}>
      <p className="rounded-lg border border-hair bg-card px-3 py-2 text-[0.85rem]">
        <b>Start quiet.</b> Drums have sharp peaks: turn your speakers or headphones down first, and
        rest your ears. Levels and pans are those of the balance; 16 bits are sent.
      </p>
      <Segmented
        small
        label="Play"
        value={played.what}
        options={played.options}
        onTake={(v) => {
          on.sound.stop();
          played.setWhat(v);
        }}
      />
      <Transport on={on} loop={played.loop} rate={heard.rate_hz} />
      <Against on={on} looped={Boolean(played.loop)} />
      {!on.test.blind && <Open {...{ take, job, heard, drum, on }} />}
    </div>
  );
}

interface OpenProps {
  take: number;
  job: number;
  heard: TakeHeard;
  drum: DrumHits | undefined;
  on: ReturnType<typeof useListen>;
}

/** Everything that a blind test must not show. */
function Open({ take, job, heard, drum, on }: OpenProps) {
  const { side, sides } = on.sides;
  return (
    <>
      <Begin {...{ take, job, heard }} sides={on.sides} />
      <div className="grid gap-4 min-[1120px]:grid-cols-[minmax(0,1fr)_minmax(0,470px)]">
        {drum ? (
          <HitWaves
            {...{ take, job, drum }}
            bent={{ rate: heard.rate_hz, shifts: sides[side].shifts }}
          />
        ) : (
          <p className="text-soft">Choose a drum to see its first half-waves as they are heard.</p>
        )}
        <TrackRows sides={on.sides} />
      </div>
    </>
  );
}
