/** A pair: distances to snare and kick, the sum, and the better places for the mic that moves. */
import { Link } from "react-router";
import type { Focus, Mic, PairRow } from "../../../api/types";
import { decisionOn, micOf, partnerOf } from "../../../core/edits";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { firstDrum, sourceName } from "../../../core/words";
import { useEditorPart, useLit } from "../../../parts/editing";
import { useTake } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import { Why } from "../../../parts/Why";
import { Distances } from "./Distances";
import { OpenPair } from "./OpenPair";
import { Summed } from "./Summed";
import { Swing } from "./Swing";

export function PairPanel() {
  const doc = useEditorPart((s) => s.still);
  const focus = useEditorPart((s) => s.board?.focus);
  const asked = useEditorPart((s) => s.focus);
  const lit = useLit();
  if (!focus) return <OpenPair anchor={asked?.anchor ?? lit.selected ?? doc.mics[0]?.id ?? ""} />;
  const [anchor, mover] = [micOf(doc, focus.a), micOf(doc, focus.b)];
  if (!anchor || !mover) return null;
  return <Pair focus={focus} anchor={anchor} mover={mover} />;
}

function Pair({ focus, anchor, mover }: { focus: Focus; anchor: Mic; mover: Mic }) {
  const doc = useEditorPart((s) => s.still);
  const ruler: Ruler = useMe();
  const row = (kind: "snare" | "kick") =>
    focus.rows.find((r) => r.source === firstDrum(doc, kind).id) as PairRow;
  const [snare, kick] = [row("snare"), row("kick")];
  const decision = decisionOn(doc, { a: anchor.id, b: mover.id, source: focus.source });
  return (
    <div className="space-y-3.5">
      <OpenPair anchor={anchor.id} mover={mover.id} />
      <Distances name="Snare" colour="border-snare" row={snare} mics={[anchor, mover]} />
      <Distances name="Kick" colour="border-kick" row={kick} mics={[anchor, mover]} />
      <Swing mover={mover} />
      <Summed focus={focus} anchor={anchor.id} mover={mover.id} />
      <FlipIt mover={mover} />
      <Why focus={focus} />
      {decision && (
        <p className="border-t border-hair pt-2 text-[0.88rem]">
          <span className="text-soft">
            Left on purpose for the {sourceName(doc, focus.source)}:
          </span>{" "}
          {decision.reason}
        </p>
      )}
      <Foot anchor={anchor} mover={mover} />
      <p className="sr-only" aria-live="polite">
        {`${mover.id}: ${lengthWithUnit(snare.tape_b_m, ruler)} from the snare, ${lengthWithUnit(kick.tape_b_m, ruler)} from the kick`}
      </p>
    </div>
  );
}

function FlipIt({ mover }: { mover: Mic }) {
  const take = useTake();
  return (
    <div className="flex items-center justify-between text-[0.9rem]">
      Polarity of {mover.id}
      <button
        type="button"
        className="btn py-1"
        aria-pressed={mover.preamp_flip}
        onClick={() => void take({ do: "flip", mics: [mover.id] })}
      >
        {mover.preamp_flip ? `Take ${mover.id}'s flip off` : `Flip ${mover.id} at the preamp`}
      </button>
    </div>
  );
}

function Foot({ anchor, mover }: { anchor: Mic; mover: Mic }) {
  const stereo = useEditorPart((s) => partnerOf(s.still, anchor.id) === mover.id);
  const take = useTake();
  return (
    <div className="flex flex-wrap gap-2 text-[0.85rem]">
      <Link to="../pairs" className="font-semibold text-snare underline">
        All drums of this pair
      </Link>
      <button
        type="button"
        className="font-semibold text-snare underline"
        onClick={() =>
          void take(
            stereo
              ? { do: "unpair", a: anchor.id, b: mover.id }
              : { do: "pair", left: anchor.id, right: mover.id },
          )
        }
      >
        {stereo ? "Not a stereo pair" : "Make it a stereo pair"}
      </button>
    </div>
  );
}
