/** A take to be heard: a drum's hits over and over, two states of the tracks, or another take, against it. */
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Link } from "react-router";
import { api, exactly } from "../../../api/client";
import type { Take, TakeHeard, TakeTold } from "../../../api/types";
import { Segmented } from "../../../parts/fields/Segmented";
import { HitWaves } from "../HitWaves";
import { Against } from "./Against";
import { Begin } from "./Begin";
import type { Deck } from "./decks";
import { TrackRows } from "./TrackRows";
import { Transport } from "./Transport";
import { type Listened, useListen } from "./useListen";

interface Props {
  take: Take;
  told: TakeTold;
  job: number | null;
}

export function Listen({ take: { id: take, name }, told, job }: Props) {
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
  const own = useMemo(
    () => heard.data && job !== null && { take, name, told, job, heard: heard.data },
    [take, name, told, job, heard.data],
  );
  if (heard.error && !heard.data) return <p role="alert">{heard.error.message}</p>;
  if (!own) return <p className="text-soft">Getting it ready…</p>;
  if (!own.heard.tracks.length) return <p className="text-soft">No track to listen to.</p>;
  return <Desk key={job} own={own} />;
}

function Desk({ own }: { own: Deck }) {
  const on = useListen(own);
  const { program, programs, setWhat } = on.played;
  return (
    <div className="space-y-3" data-listen={on.sound.on}>
      <p className="rounded-lg border border-hair bg-card px-3 py-2 text-[0.85rem]">
        <b>Start quiet.</b> Drums have sharp peaks: turn your speakers or headphones down first, and
        rest your ears. Levels and pans are those of its layout's balance; 16 bits are sent.{" "}
        <Link className="underline" to={`../log?take=${own.take}`}>
          Write down what it did
        </Link>
      </p>
      {programs.length ? (
        <Segmented
          small
          label="Play"
          value={program.what}
          options={programs.map((p): [string, string] => [p.what, p.name])}
          onTake={(v) => {
            on.sound.stop();
            setWhat(v);
          }}
        />
      ) : (
        <p className="text-soft">No drum was hit in both takes.</p>
      )}
      <Transport on={on} />
      <Against on={on} />
      {!on.test.blind && <Open on={on} />}
    </div>
  );
}

/** Everything that a blind test must not show. */
function Open({ on }: { on: Listened }) {
  const { sides, played } = on;
  const { deck } = sides;
  const drum = deck.told.drums.find((d) => d.source === played.program.what);
  return (
    <>
      <Begin on={on} />
      <div className="grid gap-4 min-[1120px]:grid-cols-[minmax(0,1fr)_minmax(0,470px)]">
        {drum ? (
          <HitWaves
            {...{ take: deck.take, job: deck.job, drum }}
            bent={{ rate: deck.heard.rate_hz, shifts: sides.sides[sides.side].shifts }}
          />
        ) : (
          <p className="text-soft">Choose a drum to see its first half-waves as they are heard.</p>
        )}
        <TrackRows sides={sides} />
      </div>
    </>
  );
}
