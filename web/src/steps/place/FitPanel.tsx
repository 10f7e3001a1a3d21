/** Fit the layout: what to look after, how exactly, and the account of what was moved. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../api/client";
import type { FitAsk, FitOut } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { LengthField } from "../../parts/fields/LengthField";
import { Tick } from "../../parts/fields/Tick";
import { NumberField } from "../../parts/fields/typed";
import { useStep } from "../../parts/hands";
import { useMe } from "../../parts/me";

type Wish = NonNullable<FitAsk["wishes"]>[number];
const WISHES: [Wish, string][] = [
  ["clear", "Clear of sticks, limbs, cymbals, walls, and within its stand's reach"],
  ["equal", "Pairs equal on the snare, then on the kick"],
  ["level", "Twin mics level and as far from their head"],
  ["nulls", "Nulls toward the loudest neighbour"],
  ["bleed", "Less bleed, by sliding round the rim"],
];

function useFit() {
  const editor = useEditor();
  const id = useEditorPart((s) => s.out.id);
  return useMutation({
    mutationFn: (ask: FitAsk) =>
      exactly<FitOut>(
        api.POST("/api/layouts/{pk}/fit", {
          params: { path: { pk: id } },
          body: { layout: editor.snapshot().still, ask },
        }),
      ),
    onSuccess: (out) => {
      if (out.moves.length) editor.commit(out.layout, `Fitted: ${out.words}`.slice(0, 120));
    },
  });
}

const USUAL = { snare_tolerance_m: 0.005, kick_tolerance_m: 0.01, off_deg: 30 };

export function FitPanel() {
  const ruler = useMe();
  const step = useStep();
  const undoable = useEditorPart((s) => s.out.undo_what);
  const [wishes, setWishes] = useState<Wish[]>(WISHES.map(([w]) => w));
  const [limits, setLimits] = useState(USUAL);
  const fit = useFit();
  const undo = () => {
    step("undo");
    fit.reset();
  };
  return (
    <div className="space-y-3">
      <h2 className="text-[1.05rem]">Fit the layout</h2>
      <p className="text-[0.85rem] text-soft">
        Moves what is free, in this order; what comes later never breaks what comes before. Hold a
        mic in place under its own heading.
      </p>
      <Wishes chosen={wishes} onChoose={setWishes} />
      <Limits limits={limits} onTake={(more) => setLimits({ ...limits, ...more })} />
      <button
        type="button"
        className="btn-main w-full"
        disabled={fit.isPending || !wishes.length}
        onClick={() => fit.mutate({ wishes, ...limits })}
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
        <button type="button" className="btn w-full" onClick={undo}>
          Undo the fit
        </button>
      )}
    </div>
  );
}

function Wishes({ chosen, onChoose }: { chosen: Wish[]; onChoose: (wishes: Wish[]) => void }) {
  const every = WISHES.map(([w]) => w);
  return (
    <fieldset className="space-y-1 text-[0.88rem]">
      <legend className="sr-only">What to look after</legend>
      {WISHES.map(([wish, words], i) => (
        <Tick
          key={wish}
          className="items-start"
          checked={chosen.includes(wish)}
          onTake={(on) => onChoose(every.filter((w) => (w === wish ? on : chosen.includes(w))))}
        >
          {i + 1}. {words}
        </Tick>
      ))}
    </fieldset>
  );
}

type Numbers = typeof USUAL;

function Limits(props: { limits: Numbers; onTake: (more: Partial<Numbers>) => void }) {
  const { limits, onTake } = props;
  const ruler: Ruler = useMe();
  return (
    <div className="grid grid-cols-2 gap-2">
      <LengthField
        label="Snare within"
        metres={limits.snare_tolerance_m}
        ruler={ruler}
        onTake={(m) => m > 0 && onTake({ snare_tolerance_m: m })}
      />
      <LengthField
        label="Kick within"
        metres={limits.kick_tolerance_m}
        ruler={ruler}
        onTake={(m) => m > 0 && onTake({ kick_tolerance_m: m })}
      />
      <NumberField
        label="Front off its drum, °"
        value={limits.off_deg}
        digits={0}
        low={0}
        high={60}
        onTake={(v) => onTake({ off_deg: v })}
      />
    </div>
  );
}

/** What it moved, by how much and why, and what it gave up. */
function Account({ out, ruler }: { out: FitOut; ruler: Ruler }) {
  return (
    <section aria-label="What the fit did" data-fit>
      <p className="font-semibold">{out.words}</p>
      <ul className="mt-1 space-y-1.5 text-[0.85rem]">
        {out.moves.map((m) => (
          <Moved key={m.mic} move={m} ruler={ruler} />
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

function Moved({ move: m, ruler }: { move: FitOut["moves"][number]; ruler: Ruler }) {
  const lit = useLit();
  const way = (metres: readonly number[]) =>
    metres.map((v) => lengthWithUnit(v, ruler)).join(" → ");
  const moved = m.moved_m >= 1e-6;
  const turned = m.turned_deg >= 0.5;
  return (
    <li data-moved={m.mic}>
      <button type="button" className="num font-bold underline" onClick={() => lit.select(m.mic)}>
        {m.mic}
      </button>{" "}
      {moved && `moved ${lengthWithUnit(m.moved_m, ruler)}`}
      {moved && turned && ", "}
      {turned && `turned ${m.turned_deg.toFixed(0)}°`}
      {moved && (
        <span className="num block text-[0.78rem] text-soft">
          snare {way(m.snare_m)}, kick {way(m.kick_m)}
        </span>
      )}
      <span className="block text-[0.8rem] text-soft">{m.why.join("; ")}</span>
    </li>
  );
}
