/** The sizes of one's own hand: measured once with a ruler, used wherever lengths are in hands. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, must } from "../../api/client";
import type { HandSizes } from "../../api/types";
import { howToType, lengthText, parseLength, type Ruler, unitMark } from "../../core/units";
import { useMe } from "../../parts/me";

const PARTS: [keyof HandSizes, string][] = [
  ["two_fingers_m", "Two fingers side by side"],
  ["three_fingers_m", "Three fingers side by side"],
  ["fist_m", "A fist across"],
  ["hand_m", "A hand, thumb to little finger"],
  ["card_m", "A card's thickness"],
];

/** The sizes typed in a form; null where one is no length. What was not touched keeps its digits. */
function sizesOf(form: FormData, hand: HandSizes, ruler: Ruler): HandSizes | null {
  const sizes = { ...hand };
  for (const [key] of PARTS) {
    const text = String(form.get(key));
    const metres = text === shown(hand[key], ruler) ? hand[key] : parseLength(text, ruler);
    if (metres === null) return null;
    sizes[key] = metres;
  }
  return sizes;
}

function useKeepHand(ruler: Ruler) {
  const me = useMe();
  const queries = useQueryClient();
  const [bad, setBad] = useState("");
  const keep = useMutation({
    mutationFn: (body: HandSizes) => must(api.PUT("/api/account/hand", { body })),
    onSuccess: (fresh) => queries.setQueryData(["me"], fresh),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const sizes = sizesOf(new FormData(e.currentTarget), me.hand, ruler);
    setBad(sizes ? "" : `${howToType(ruler)}.`);
    if (sizes) keep.mutate(sizes);
  };
  const wrong = bad || (keep.error?.message ?? "");
  return { submit, wrong, kept: keep.isSuccess, busy: keep.isPending };
}

export function HandSection() {
  const me = useMe();
  // A hand is measured with a ruler, so its own sizes are never told in hands.
  const ruler: Ruler = { hand: me.hand, units: me.units === "ft-in" ? "ft-in" : "cm" };
  const { submit, wrong, kept, busy } = useKeepHand(ruler);
  return (
    <section>
      <h2 className="text-lg">Your hand</h2>
      <p className="max-w-md text-[0.9rem] text-soft">
        Measure once with a ruler. With the unit <b>hand</b> in the top bar, every length is shown
        and typed in hands, fist and fingers.
      </p>
      {me.hand_fault && (
        <p role="alert" className="max-w-md text-hollow">
          {me.hand_fault}
        </p>
      )}
      <form
        onSubmit={submit}
        className="mt-2 grid max-w-md grid-cols-[1fr_7rem] items-center gap-2"
      >
        {PARTS.map(([key, label]) => (
          <label key={key} className="contents">
            <span>
              {label}
              {unitMark(ruler)}
            </span>
            <input
              name={key}
              className="field num"
              defaultValue={shown(me.hand[key], ruler)}
              required
            />
          </label>
        ))}
        <button type="submit" className="btn-main col-span-2" disabled={busy}>
          Keep my hand
        </button>
        <p role="status" className={`col-span-2 ${wrong ? "text-hollow" : "text-ring"}`}>
          {wrong || (kept ? "Your hand is kept." : "")}
        </p>
      </form>
    </section>
  );
}

/** A size in the ruler's units; a card is thinner than the last digit elsewhere. */
function shown(metres: number, ruler: Ruler): string {
  return metres < 0.005 && ruler.units === "cm"
    ? (metres * 100).toFixed(2)
    : lengthText(metres, ruler);
}
