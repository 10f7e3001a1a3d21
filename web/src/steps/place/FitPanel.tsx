/** Fit the layout: what to look after, how exactly, and the account of what was moved. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../api/client";
import type { FitAsk, FitOut } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { NumberField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";

type Wish = NonNullable<FitAsk["wishes"]>[number];
const WISHES: [Wish, string][] = [
  ["clear", "Clear of sticks, limbs, cymbals, walls, and within its stand's reach"],
  ["equal", "Pairs equal on the snare, then on the kick"],
  ["level", "Twin mics level and as far from their head"],
  ["nulls", "Nulls toward the loudest neighbour"],
  ["bleed", "Less bleed, by sliding round the rim"],
];

export function FitPanel() {
  const editor = useEditor();
  const ruler = useMe();
  const id = useEditorPart((s) => s.out.id);
  const undoable = useEditorPart((s) => s.out.undo_what);
  const [wishes, setWishes] = useState<Wish[]>(WISHES.map(([w]) => w));
  const [snare, setSnare] = useState(0.005);
  const [kick, setKick] = useState(0.01);
  const [off, setOff] = useState(30);
  const fit = useMutation({
    mutationFn: () =>
      exactly<FitOut>(
        api.POST("/api/layouts/{pk}/fit", {
          params: { path: { pk: id } },
          body: {
            layout: editor.snapshot().still,
            ask: { wishes, snare_tolerance_m: snare, kick_tolerance_m: kick, off_deg: off },
          },
        }),
      ),
    onSuccess: (out) => {
      if (out.moves.length) editor.commit(out.layout, `Fitted: ${out.words}`.slice(0, 120));
    },
  });
  return (
    <div className="space-y-3">
      <h2 className="text-[1.05rem]">Fit the layout</h2>
      <p className="text-[0.85rem] text-soft">
        Moves what is free, in this order; what comes later never breaks what comes before. Hold a
        mic in place under its own heading.
      </p>
      <fieldset className="space-y-1 text-[0.88rem]">
        <legend className="sr-only">What to look after</legend>
        {WISHES.map(([wish, words], i) => (
          <label key={wish} className="flex gap-2">
            <input
              type="checkbox"
              checked={wishes.includes(wish)}
              onChange={(e) =>
                setWishes(
                  WISHES.map(([w]) => w).filter((w) =>
                    w === wish ? e.target.checked : wishes.includes(w),
                  ),
                )
              }
            />
            <span>
              {i + 1}. {words}
            </span>
          </label>
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label="Snare within"
          metres={snare}
          ruler={ruler}
          onTake={(m) => m > 0 && setSnare(m)}
        />
        <LengthField
          label="Kick within"
          metres={kick}
          ruler={ruler}
          onTake={(m) => m > 0 && setKick(m)}
        />
        <NumberField
          label="Front off its drum, °"
          value={off}
          digits={0}
          low={0}
          high={60}
          onTake={setOff}
        />
      </div>
      <button
        type="button"
        className="btn-main w-full"
        disabled={fit.isPending || !wishes.length}
        onClick={() => fit.mutate()}
      >
        {fit.isPending ? "Fitting…" : "Fit it"}
      </button>
      {fit.error && (
        <p role="alert" className="text-[0.88rem] text-hollow">
          {fit.error.message}
        </p>
      )}
      {fit.data && <Account out={fit.data} ruler={ruler} />}
      {fit.data && fit.data.moves.length > 0 && undoable?.startsWith("Fitted") && (
        <button
          type="button"
          className="btn w-full"
          onClick={() => {
            void editor.step("undo");
            fit.reset();
          }}
        >
          Undo the fit
        </button>
      )}
    </div>
  );
}

/** What it moved, by how much and why, and what it gave up. */
function Account({ out, ruler }: { out: FitOut; ruler: Ruler }) {
  const lit = useLit();
  return (
    <section aria-label="What the fit did" data-fit>
      <p className="font-semibold">{out.words}</p>
      <ul className="mt-1 space-y-1.5 text-[0.85rem]">
        {out.moves.map((m) => (
          <li key={m.mic} data-moved={m.mic}>
            <button
              type="button"
              className="num font-bold underline"
              onClick={() => lit.select(m.mic)}
            >
              {m.mic}
            </button>{" "}
            {m.moved_m >= 1e-6 && `moved ${lengthWithUnit(m.moved_m, ruler)}`}
            {m.moved_m >= 1e-6 && m.turned_deg >= 0.5 && ", "}
            {m.turned_deg >= 0.5 && `turned ${m.turned_deg.toFixed(0)}°`}
            {m.moved_m >= 1e-6 && (
              <span className="num block text-[0.78rem] text-soft">
                snare {m.snare_m.map((v) => lengthWithUnit(v ?? 0, ruler)).join(" → ")}, kick{" "}
                {m.kick_m.map((v) => lengthWithUnit(v ?? 0, ruler)).join(" → ")}
              </span>
            )}
            <span className="block text-[0.8rem] text-soft">{m.why.join("; ")}</span>
          </li>
        ))}
      </ul>
      {out.gave_up.length > 0 && (
        <>
          <h3 className="mt-2 text-[0.9rem]">Given up</h3>
          <ul className="space-y-1 text-[0.85rem]" role="alert">
            {out.gave_up.map((g) => (
              <li key={g.words} data-gaveup>
                {g.words}
                {g.left_m !== null && (
                  <span className="num"> {lengthWithUnit(g.left_m, ruler)} are left.</span>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
