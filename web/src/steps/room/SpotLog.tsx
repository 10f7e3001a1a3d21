/** Spots tried by ear: where the kit stood, how it sounded, and a way back there. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { Room, SpotTried } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useLog } from "../../parts/log";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import type { Pose } from "./plan/pose";

const RATINGS = ["1", "2", "3", "4", "5"] as const;

export function useTried(): SpotTried[] {
  const session = useEditorPart((s) => s.out.session_id);
  const found = useQuery({
    queryKey: ["spots", session],
    queryFn: () =>
      exactly<SpotTried[]>(
        api.GET("/api/sessions/{pk}/spots", { params: { path: { pk: session } } }),
      ),
  });
  return found.data ?? [];
}

function useSpots(room: Room) {
  const session = useEditorPart((s) => s.out.session_id);
  const say = useToast();
  const log = useLog();
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: ["spots", session] });
  const onError = (e: Error) => say(e.message);
  const write = useMutation({
    mutationFn: ({ rating, words }: { rating: number; words: string }) =>
      log("spots", {
        room: room.name,
        x_m: room.kit_x_m,
        y_m: room.kit_y_m,
        turn_rad: room.kit_turn_rad ?? 0,
        rating,
        words,
      }),
    onSuccess,
    onError,
  });
  const strike = useMutation({
    mutationFn: (row: number) =>
      must(
        api.DELETE("/api/sessions/{pk}/spots/{row}", { params: { path: { pk: session, row } } }),
      ),
    onSuccess,
    onError,
  });
  return { write, strike };
}

interface Props {
  room: Room;
  onGo: (pose: Pose) => void;
}

export function SpotLog({ room, onGo }: Props) {
  const tried = useTried();
  const { write, strike } = useSpots(room);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,20rem)_minmax(0,1fr)] gap-5 px-4 pb-3 text-[0.88rem] narrow:h-auto narrow:grid-cols-[minmax(0,1fr)]">
      <WriteDown write={write} />
      <div className="min-h-0 overflow-y-auto">
        {tried.length === 0 && <p className="text-soft">No spot is written down yet.</p>}
        <ul className="space-y-1">
          {tried.map((t) => (
            <Spot
              key={t.id}
              spot={t}
              here={t.room === room.name}
              onGo={onGo}
              onStrike={() => strike.mutate(t.id)}
            />
          ))}
        </ul>
      </div>
    </div>
  );
}

function WriteDown({ write }: { write: ReturnType<typeof useSpots>["write"] }) {
  const [rating, setRating] = useState<(typeof RATINGS)[number]>("3");
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const words = String(new FormData(form).get("words")).trim();
    write.mutate({ rating: Number(rating), words }, { onSuccess: () => form.reset() });
  };
  return (
    <form onSubmit={submit} className="space-y-2">
      <p className="text-soft">
        Hit, move, hit: write down how the kit sounds where it stands now. Protect your ears while
        somebody plays.
      </p>
      <Segmented
        small
        label="How it sounds, 1 to 5"
        value={rating}
        options={RATINGS.map((r) => [r, r] as const)}
        onTake={setRating}
      />
      <label className="block">
        <span className="text-[0.8rem] text-soft">In words</span>
        <input name="words" className="field w-full" maxLength={400} />
      </label>
      <button type="submit" className="btn" disabled={write.isPending}>
        Write this spot down
      </button>
    </form>
  );
}

function Spot(props: {
  spot: SpotTried;
  /** Whether it was tried in the room that is drawn. */
  here: boolean;
  onGo: Props["onGo"];
  onStrike: () => void;
}) {
  const { spot, here, onGo, onStrike } = props;
  const ruler: Ruler = useMe();
  const { x_m: x, y_m: y } = spot;
  return (
    <li className="flex items-baseline gap-2" data-spot={spot.id}>
      <strong className="num w-4 text-kick">{spot.rating}</strong>
      <span className="num whitespace-nowrap text-soft">
        {lengthWithUnit(x, ruler)} / {lengthWithUnit(y, ruler)}
      </span>
      <span className="min-w-0 flex-1">
        {spot.words} <span className="text-soft">{spot.by}</span>
      </span>
      {here && (
        <button
          type="button"
          className="text-snare underline"
          onClick={() => onGo({ x, y, turn: spot.turn_rad ?? 0 })}
        >
          go there
        </button>
      )}
      <button type="button" className="text-soft underline" onClick={onStrike}>
        strike out
      </button>
    </li>
  );
}
