/** Better places for the mic that moves: on the ring, level with its partner, on the sphere. */
import type { Mic, Spot } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import { useEditorPart } from "../../../parts/editing";
import { Hint } from "../../../parts/fields/Hint";
import { useChangeMic } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import { NOTHING_M } from "./Distances";

type Places = NonNullable<ReturnType<typeof usePlaces>>;

function usePlaces() {
  return useEditorPart((s) => s.board?.focus?.places);
}

const there = (s: Spot) => (s.moved_m ?? 1) < NOTHING_M;

export function Swing({ mover }: { mover: Mic }) {
  const places = usePlaces();
  const change = useChangeMic();
  if (!places)
    return (
      <p className="text-[0.85rem] text-soft">
        These two can never be equal in time on every drum. Their sum is judged by the body each
        drum keeps; see it below.
      </p>
    );
  const onTake = (spot: Spot, why: string) => {
    if (spot.position_m) change(mover.id, { position_m: spot.position_m }, { why });
  };
  return <Spots places={places} mover={mover} onTake={onTake} />;
}

interface Props {
  places: Places;
  mover: Mic;
  onTake: (spot: Spot, why: string) => void;
}

function Spots({ places, mover, onTake }: Props) {
  const ruler: Ruler = useMe();
  const { swing, equal_height, snare_only } = places;
  const about = (s: Spot) =>
    s.position_m ? `${lengthWithUnit(s.moved_m ?? 0, ruler)} away` : s.words;
  const off = !swing.position_m || there(swing) || places.ring.kind !== "circle";
  return (
    <section className="space-y-2" aria-label={`Better places for ${mover.id}`}>
      <button
        type="button"
        className="btn-main w-full"
        disabled={off}
        onClick={() => onTake(swing, `Swung ${mover.id} onto the ring`)}
      >
        {there(swing) ? `${mover.id} is on the ring` : `Swing ${mover.id} onto the ring`}
      </button>
      <p className="text-[0.83rem] text-soft">{swingWords(places, ruler)}</p>
      <div className="grid grid-cols-2 gap-2">
        <Other
          name="Equal height"
          spot={equal_height}
          about={about(equal_height)}
          onTake={() => onTake(equal_height, `Moved ${mover.id} to equal height`)}
        />
        <Other
          name="Snare only, nearest"
          spot={snare_only}
          about={about(snare_only)}
          onTake={() => onTake(snare_only, `Moved ${mover.id} to equal snare distance`)}
        />
      </div>
      {!there(swing) && (
        <p className="text-[0.8rem] text-soft">
          Equal height: {about(equal_height)}. Snare only: {about(snare_only)}.
        </p>
      )}
    </section>
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
