/** A pair: distances to snare and kick, the sum, and the better places for the mic that moves. */
import { memo } from "react";
import { Link } from "react-router";
import type { Mic } from "../../../api/types";
import { channelOf, decisionOn, micOf, partnerOf } from "../../../core/edits";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { firstDrum, sourceName, the } from "../../../core/words";
import { useEditorPart, useSelected } from "../../../parts/editing";
import { useTake } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import { Why } from "../../../parts/Why";
import { Distances } from "./Distances";
import { OpenPair } from "./OpenPair";
import { Summed } from "./Summed";
import { Swing } from "./Swing";

export const PairPanel = memo(function PairPanel() {
  const doc = useEditorPart((s) => s.still);
  const a = useEditorPart((s) => s.board?.focus?.a);
  const b = useEditorPart((s) => s.board?.focus?.b);
  if (!a || !b) return <NoPair />;
  const [anchor, mover] = [micOf(doc, a), micOf(doc, b)];
  if (!anchor || !mover) return null;
  return (
    <div className="space-y-3.5">
      <OpenPair anchor={anchor.id} mover={mover.id} />
      <Distances name="Snare" kind="snare" colour="border-snare" mics={[anchor, mover]} />
      <Distances name="Kick" kind="kick" colour="border-kick" mics={[anchor, mover]} />
      <Swing mover={mover} />
      <Summed />
      <FlipIt mover={mover} />
      <WhyThese />
      <LeftOnPurpose />
      <Foot anchor={anchor} mover={mover} />
      <Aloud />
    </div>
  );
});

function NoPair() {
  const doc = useEditorPart((s) => s.still);
  const asked = useEditorPart((s) => s.focus);
  const selected = useSelected();
  return <OpenPair anchor={asked?.anchor ?? selected ?? doc.mics[0]?.id ?? ""} />;
}

function WhyThese() {
  const focus = useEditorPart((s) => s.whole?.focus);
  return focus && <Why focus={focus} />;
}

function LeftOnPurpose() {
  const doc = useEditorPart((s) => s.still);
  const focus = useEditorPart((s) => s.whole?.focus);
  const decision = focus && decisionOn(doc, focus);
  return (
    decision && (
      <p className="border-t border-hair pt-2 text-[0.88rem]">
        <span className="text-soft">Left on purpose for {the(sourceName(doc, focus.source))}:</span>{" "}
        {decision.reason}
      </p>
    )
  );
}

/** Both distances of the mover for whoever listens: said when the hand rests. */
function Aloud() {
  const doc = useEditorPart((s) => s.still);
  const focus = useEditorPart((s) => s.whole?.focus);
  const ruler: Ruler = useMe();
  const far = (kind: "snare" | "kick") => {
    const row = focus?.rows.find((r) => r.source === firstDrum(doc, kind).id);
    return `${lengthWithUnit(row?.tape_b_m ?? 0, ruler)} from the ${kind}`;
  };
  return (
    <p className="sr-only" aria-live="polite">
      {focus && `${focus.b}: ${far("snare")}, ${far("kick")}`}
    </p>
  );
}

const FlipIt = memo(function FlipIt({ mover }: { mover: Mic }) {
  const take = useTake();
  const flipped = useEditorPart((s) => channelOf(s.still, mover.id)?.preamp_flip);
  if (flipped === undefined) return null;
  return (
    <div className="flex items-center justify-between text-[0.9rem]">
      Polarity of {mover.id}
      <button
        type="button"
        className="btn py-1"
        aria-pressed={flipped}
        onClick={() => void take({ do: "flip", mics: [mover.id] })}
      >
        {flipped ? `Take ${mover.id}'s flip off` : `Flip ${mover.id} at the preamp`}
      </button>
    </div>
  );
});

const Foot = memo(function Foot({ anchor, mover }: { anchor: Mic; mover: Mic }) {
  const stereo = useEditorPart((s) => partnerOf(s.still, anchor.id) === mover.id);
  const take = useTake();
  return (
    <div className="flex flex-wrap gap-2 text-[0.85rem]">
      <Link to="../pairs" state={{ opened: true }} className="font-semibold text-snare underline">
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
});
