/** A code for the phone's camera: it opens this layout there, signed in, once, within minutes. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, must } from "../../api/client";
import type { PhoneLink } from "../../api/types";
import { minutesLeft } from "../../core/countdown";
import { Ask } from "../Ask";

const LOOK_MS = 2000;
const ABOUT = "The phone opens the Tape step of this layout, signed in as you.";

export function OnPhone(props: { layout: number; open: boolean; onClose: () => void }) {
  return (
    <Ask open={props.open} onClose={props.onClose} title="Open on a phone" about={ABOUT}>
      <Link layout={props.layout} />
    </Ask>
  );
}

function Link({ layout }: { layout: number }) {
  const make = useMutation({
    mutationFn: () => must(api.POST("/api/account/phone-links", { body: { layout } })),
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: one link when it is opened
  useEffect(() => make.mutate(), []);
  if (make.error)
    return (
      <p role="alert" className="font-semibold">
        {make.error.message}
      </p>
    );
  if (!make.data) return <p className="text-soft">Making a link…</p>;
  return <Code key={make.data.id} link={make.data} onAgain={() => make.mutate()} />;
}

/** What became of a link, asked for while its code is shown. */
function useFate(pk: number) {
  const found = useQuery({
    queryKey: ["phone link", pk],
    queryFn: () => must(api.GET("/api/account/phone-links/{pk}", { params: { path: { pk } } })),
    refetchInterval: (q) => (q.state.data?.state === "waiting" || !q.state.data ? LOOK_MS : false),
    retry: false,
  });
  return found.data?.state ?? "waiting";
}

function useNow(): number {
  const [now, tick] = useState(Date.now());
  useEffect(() => {
    const clock = setInterval(() => tick(Date.now()), 1000);
    return () => clearInterval(clock);
  }, []);
  return now;
}

function Code({ link, onAgain }: { link: PhoneLink; onAgain: () => void }) {
  const state = useFate(link.id);
  const now = useNow();
  const [n, choose] = useState(0);
  const way = link.ways[n];
  if (state === "used")
    return (
      <div role="status" className="space-y-3">
        <p className="font-semibold text-ring">A phone is signed in with this link.</p>
        <p className="text-soft">It is in the list of your devices, under Account.</p>
        <button type="button" className="btn" onClick={onAgain}>
          A code for another phone
        </button>
      </div>
    );
  if (state === "ended" || !way)
    return (
      <button type="button" className="btn-main w-full" onClick={onAgain}>
        The ten minutes are over: make a new code
      </button>
    );
  return (
    <div className="space-y-3">
      <img
        src={way.qr}
        alt={`Code of a link to ${way.origin}`}
        className="mx-auto w-full max-w-72 rounded-card"
      />
      <Ways link={link} n={n} onChoose={choose} />
      <p className="text-[0.9rem]">
        Read it with the phone's camera. For one phone, for{" "}
        <b className="num">{minutesLeft(link.ends_at, now)}</b> more. Whoever reads this code is
        signed in as you, so show it to nobody else.
      </p>
    </div>
  );
}

/** Which address of this computer the code leads to, where it has several. */
function Ways(props: { link: PhoneLink; n: number; onChoose: (n: number) => void }) {
  const { link, n, onChoose } = props;
  return (
    <p className="flex flex-wrap justify-center gap-2 text-[0.9rem]">
      {link.ways.map((w, k) => (
        <button
          type="button"
          key={w.origin}
          aria-pressed={k === n}
          className={`num rounded-md px-1.5 ${k === n ? "font-semibold" : "text-soft underline"}`}
          onClick={() => onChoose(k)}
        >
          {w.origin}
        </button>
      ))}
    </p>
  );
}
