/** The take that is open, and another one that is held against it. */
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, exactly, must } from "../../../api/client";
import type { Against, Job, TakeHeard, TakeNamed, TakeTold } from "../../../api/types";
import type { Side } from "../../../parts/hearing";
import { useJob } from "../../../parts/useJob";

/** A measured take, as it is listened to. */
export interface Deck {
  take: number;
  name: string;
  job: number;
  heard: TakeHeard;
  told: TakeTold;
}

/** Another take, and which of its strokes stand against which of the open one. */
export interface OtherDeck extends Deck {
  against: Against;
}

/** Another take is measured as it is planned now, then fetched; `onReady` once it can be heard. */
export function useOther(own: Deck, onReady: (side: Side, other: OtherDeck) => void) {
  const queries = useQueryClient();
  const [other, setOther] = useState<OtherDeck | null>(null);
  const [bad, setBad] = useState("");
  const wanted = useRef<{ take: TakeNamed; side: Side } | null>(null);
  const measured = async (now: Job) => {
    const asked = wanted.current;
    if (!asked) return;
    const { take, side } = asked;
    const path = { pk: take.id, job: now.id };
    const params = { path: { pk: own.take, job: own.job, other: take.id, other_job: now.id } };
    const get = <T>(what: string, queryFn: () => Promise<T>) =>
      queries.fetchQuery({ queryKey: [what, take.id, now.id], queryFn });
    const [heard, told, against] = await Promise.all([
      get("take heard", () =>
        exactly<TakeHeard>(
          api.GET("/api/takes/{pk}/measures/{job}/listening", { params: { path } }),
        ),
      ),
      get("take told", () =>
        exactly<TakeTold>(api.GET("/api/takes/{pk}/measures/{job}/told", { params: { path } })),
      ),
      exactly<Against>(
        api.GET("/api/takes/{pk}/measures/{job}/against/{other}/{other_job}", { params }),
      ),
    ]);
    // Meanwhile yet another one may have been chosen.
    if (wanted.current !== asked) return;
    const made = { take: take.id, name: take.name, job: now.id, heard, told, against };
    setOther(made);
    onReady(side, made);
  };
  const {
    job,
    bad: failed,
    start,
  } = useJob(
    (pk) => must<Job>(api.GET("/api/measures/{pk}", { params: { path: { pk } } })),
    null,
    (now) => void measured(now).catch((error: Error) => setBad(error.message)),
  );
  const choose = (take: TakeNamed, side: Side) => {
    wanted.current = { take, side };
    setBad("");
    if (other?.take === take.id) return onReady(side, other);
    const path = { pk: take.id };
    start(must<Job>(api.POST("/api/takes/{pk}/measure", { params: { path } })));
  };
  return { other, choose, job, bad: bad || failed };
}
