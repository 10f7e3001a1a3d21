/** Better places for the mic that moves: on the ring, level with its partner, on the sphere. */
import { memo } from "react";
import type { Mic, Spot } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { useCalmPart, useEditorPart } from "../../../parts/editing";
import { Hint } from "../../../parts/fields/Hint";
import { useChangeMic } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import { NOTHING_M } from "./Distances";

type Places = NonNullable<ReturnType<typeof usePlaces>>;

function usePlaces() {
  return useCalmPart((s) => s.board?.focus?.places);
}

/** What can be pressed is as it was before the hand took hold of a mic: nobody presses it now. */
function useRestingPlaces() {
  return useEditorPart((s) => (s.underHand ? s.whole : s.board)?.focus?.places);
}

const there = (s: Spot) => (s.moved_m ?? 1) < NOTHING_M;

export function Swing({ mover }: { mover: Mic }) {
  const none = useEditorPart((s) => !s.board?.focus?.places);
  if (none)
    return (
      <p className="text-[0.85rem] text-soft">
        These two can never be equal in time on every drum. Their sum is judged by the body each
        drum keeps; see it below.
      </p>
    );
  return (
    <section className="space-y-2" aria-label={`Better places for ${mover.id}`}>
      <OntoRing mover={mover} />
      <OntoRingWords />
      <Others mover={mover} />
      <OthersWords />
    </section>
  );
}

/** Take a better place for a mic. */
function useTakeSpot(mover: Mic) {
  const change = useChangeMic();
  return (spot: Spot, why: string) => {
    if (spot.position_m) change(mover.id, { position_m: spot.position_m }, { why });
  };
}

const aboutOf = (s: Spot, ruler: Ruler) =>
  s.position_m ? `${lengthWithUnit(s.moved_m ?? 0, ruler)} away` : s.words;

const OntoRing = memo(function OntoRing({ mover }: { mover: Mic }) {
  const places = useRestingPlaces();
  const take = useTakeSpot(mover);
  if (!places) return null;
  const { swing, ring } = places;
  return (
    <button
      type="button"
      className="btn-main w-full"
      disabled={!swing.position_m || there(swing) || ring.kind !== "circle"}
      onClick={() => take(swing, `Swung ${mover.id} onto the ring`)}
    >
      {there(swing) ? `${mover.id} is on the ring` : `Swing ${mover.id} onto the ring`}
    </button>
  );
});

function OntoRingWords() {
  const places = usePlaces();
  const ruler: Ruler = useMe();
  return places && <p className="text-[0.83rem] text-soft">{swingWords(places, ruler)}</p>;
}

const Others = memo(function Others({ mover }: { mover: Mic }) {
  const places = useRestingPlaces();
  const ruler: Ruler = useMe();
  const take = useTakeSpot(mover);
  if (!places) return null;
  const { equal_height, snare_only } = places;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Other
        name="Equal height"
        spot={equal_height}
        about={aboutOf(equal_height, ruler)}
        onTake={() => take(equal_height, `Moved ${mover.id} to equal height`)}
      />
      <Other
        name="Snare only, nearest"
        spot={snare_only}
        about={aboutOf(snare_only, ruler)}
        onTake={() => take(snare_only, `Moved ${mover.id} to equal snare distance`)}
      />
    </div>
  );
});

function OthersWords() {
  const places = usePlaces();
  const ruler: Ruler = useMe();
  if (!places || there(places.swing)) return null;
  return (
    <p className="text-[0.8rem] text-soft">
      Equal height: {aboutOf(places.equal_height, ruler)}. Snare only:{" "}
      {aboutOf(places.snare_only, ruler)}.
    </p>
  );
}

function swingWords({ ring, swing }: Places, ruler: Ruler): string {
  if (ring.kind !== "circle") return ring.words;
  const far = (m: number | null | undefined) => lengthWithUnit(m ?? 0, ruler);
  const words = there(swing)
    ? "Every spot of the green ring has these two distances."
    : `Moves the capsule ${far(swing.moved_m)}, to snare ${far(swing.snare_m)} and kick ${far(swing.kick_m)}.`;
  return swing.words ? `${words} ${swing.words}` : words;
}

function Other(props: { name: string; spot: Spot; about: string; onTake: () => void }) {
  return (
    <Hint words={props.about}>
      <button
        type="button"
        className="btn px-2 text-[0.83rem]"
        disabled={!props.spot.position_m || there(props.spot)}
        onClick={props.onTake}
      >
        {props.name}
      </button>
    </Hint>
  );
}
