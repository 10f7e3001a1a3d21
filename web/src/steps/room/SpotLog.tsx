/** Spots tried by ear: where the kit stood, how it sounded, and a way back there. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { Room, SpotTried } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { useToast } from "../../parts/toast";
import type { Pose } from "./RoomPlan";

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

export function SpotLog({ room, onGo }: { room: Room; onGo: (pose: Pose) => void }) {
  const session = useEditorPart((s) => s.out.session_id);
  const tried = useTried();
  const ruler: Ruler = useMe();
  const say = useToast();
  const queries = useQueryClient();
  const [rating, setRating] = useState<(typeof RATINGS)[number]>("3");
  const again = () => queries.invalidateQueries({ queryKey: ["spots", session] });
  const write = useMutation({
    mutationFn: (words: string) =>
      exactly<SpotTried>(
        api.POST("/api/sessions/{pk}/spots", {
          params: { path: { pk: session } },
          body: {
            room: room.name,
            x_m: room.kit_x_m,
            y_m: room.kit_y_m,
            turn_rad: room.kit_turn_rad ?? 0,
            rating: Number(rating),
            words,
          },
        }),
      ),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const strike = useMutation({
    mutationFn: (row: number) =>
      must(
        api.DELETE("/api/sessions/{pk}/spots/{row}", { params: { path: { pk: session, row } } }),
      ),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    write.mutate(String(new FormData(form).get("words")).trim(), { onSuccess: () => form.reset() });
  };
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,20rem)_minmax(0,1fr)] gap-5 px-4 pb-3 text-[0.88rem]">
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
      <div className="min-h-0 overflow-y-auto">
        {tried.length === 0 && <p className="text-soft">No spot is written down yet.</p>}
        <ul className="space-y-1">
          {tried.map((t) => (
            <li key={t.id} className="flex items-baseline gap-2" data-spot={t.id}>
              <strong className="num w-4 text-kick">{t.rating}</strong>
              <span className="num whitespace-nowrap text-soft">
                {lengthWithUnit(t.x_m, ruler)} / {lengthWithUnit(t.y_m, ruler)}
              </span>
              <span className="min-w-0 flex-1">
                {t.words} <span className="text-soft">{t.by}</span>
              </span>
              {t.room === room.name && (
                <button
                  type="button"
                  className="text-snare underline"
                  onClick={() => onGo({ x: t.x_m, y: t.y_m, turn: t.turn_rad ?? 0 })}
                >
                  go there
                </button>
              )}
              <button
                type="button"
                className="text-soft underline"
                onClick={() => strike.mutate(t.id)}
              >
                strike out
              </button>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
