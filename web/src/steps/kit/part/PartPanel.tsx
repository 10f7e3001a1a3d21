/** One drum or cymbal: size, place, lean, and what a drum has besides. */
import { memo } from "react";
import type { Drum } from "../../../api/types";
import { centreOf, isDrum, type Part, partAt } from "../../../core/kitParts";
import { stepOf, stepsIn, type Way, wayWords } from "../../../core/nudge";
import { INCH, type Ruler } from "../../../core/units";
import { axisOf, leanOf, type Point3 } from "../../../core/view";
import { useLit } from "../../../parts/editing";
import { LengthField } from "../../../parts/fields/LengthField";
import { type LengthRow, Lengths } from "../../../parts/fields/Lengths";
import { Pick } from "../../../parts/fields/Pick";
import { NameField, NumberField } from "../../../parts/fields/typed";
import { useChangePart, useTake } from "../../../parts/hands";
import { LaterAtRest, OneByOne } from "../../../parts/Later";
import { useMe } from "../../../parts/me";
import { Nudge } from "../../../parts/nudge/Nudge";
import { useSteady } from "../../../parts/steady";
import { DrumFields, type SetPart } from "./DrumFields";

const DRUM_KINDS: Drum["kind"][] = ["kick", "snare", "rack", "floor", "hand drum"];
const CYMBAL_KINDS = ["hats", "crash", "ride", "splash", "china", "percussion"];

export function PartPanel({ part, onGone }: { part: Part; onGone: () => void }) {
  const change = useChangePart();
  const take = useTake();
  const set: SetPart = useSteady(
    (more) => void change.take(part.id, (p) => ({ ...p, ...more }) as Part),
  );
  const takeAway = async () => {
    if (await take({ do: "remove", id: part.id })) onGone();
  };
  return (
    <div className="space-y-3.5">
      <OneByOne>
        <h2 className="truncate text-[1.05rem]">{part.name}</h2>
        <Stands part={part} />
      </OneByOne>
      <LaterAtRest>
        <Leans axis={part.axis} set={set} />
        <Sizes {...sizesOf(part)} set={set} />
        {isDrum(part) && <DrumFields drum={part} set={set} />}
        <button type="button" className="btn w-full" onClick={() => void takeAway()}>
          Take {part.name} away
        </button>
      </LaterAtRest>
    </div>
  );
}

/** All of it that stays while it is moved. */
const sizesOf = (part: Part) => ({
  name: part.name,
  kind: part.kind,
  diameter_m: part.diameter_m,
  depth_m: isDrum(part) ? part.depth_m : null,
});

/** What it is called, what it is, and how large. */
const Sizes = memo(function Sizes(props: ReturnType<typeof sizesOf> & { set: SetPart }) {
  const { name, kind, diameter_m, depth_m, set } = props;
  return (
    <div className="grid grid-cols-2 gap-2">
      <NameField label="Name" value={name} onTake={(words) => set({ name: words })} />
      <Pick
        label="Kind"
        value={kind}
        options={depth_m === null ? CYMBAL_KINDS : DRUM_KINDS}
        onTake={(v) => set({ kind: v as Drum["kind"], beater: null })}
      />
      <Across
        label="Size"
        metres={diameter_m}
        low={4}
        high={39}
        onTake={(m) => set({ diameter_m: m })}
      />
      {depth_m !== null && (
        <Across
          label="Depth"
          metres={depth_m}
          low={1.2}
          high={47}
          onTake={(m) => set({ depth_m: m })}
        />
      )}
    </div>
  );
});

/** A size of the trade, in inches, and the same by the chosen ruler. */
function Across(props: {
  label: string;
  metres: number;
  low: number;
  high: number;
  onTake: (metres: number) => void;
}) {
  const { label, metres, low, high, onTake } = props;
  const ruler: Ruler = useMe();
  return (
    <>
      <NumberField
        label={`${label}, inches`}
        value={metres / INCH}
        digits={1}
        low={low}
        high={high}
        onTake={(v) => onTake(v * INCH)}
      />
      <LengthField label={label} metres={metres} ruler={ruler} onTake={onTake} />
    </>
  );
}

/** Where it stands comes first: nothing else here changes while a hand moves it. */
function Stands({ part }: { part: Part }) {
  const change = useChangePart();
  const row = (label: string, axis: 0 | 1 | 2): LengthRow => [
    label,
    centreOf(part)[axis],
    (metres) =>
      void change.take(part.id, (p) => {
        const to: [number, number, number] = [...centreOf(p)];
        to[axis] = metres;
        return partAt(p, to);
      }),
  ];
  return (
    <>
      <Lengths rows={[row("Right", 0), row("Front", 1), row("Height", 2)]} />
      <PartNudge part={part} />
    </>
  );
}

/** By small steps of a thumb. */
function PartNudge({ part }: { part: Part }) {
  const change = useChangePart();
  const { side } = useLit();
  const go = (way: Way, by: number) => change.nudge(part.id, stepOf(way, by, side));
  return (
    <Nudge
      name={part.name}
      steps={stepsIn(useMe())}
      words={(way) => wayWords(way, side)}
      onArrow={go}
      more={(["higher", "lower"] as const).map(
        (way) => [wayWords(way, side), (by: number) => go(way, by)] as const,
      )}
    />
  );
}

const Leans = memo(function Leans({ axis, set }: { axis: Part["axis"]; set: SetPart }) {
  const lean = leanOf(axis as Point3);
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Leans, degrees"
          value={lean.tilt}
          digits={0}
          low={0}
          high={180}
          onTake={(v) => set({ axis: axisOf(v, lean.turn) })}
        />
        <NumberField
          label="Toward, degrees"
          value={lean.turn}
          digits={0}
          low={-180}
          high={360}
          onTake={(v) => set({ axis: axisOf(lean.tilt, v) })}
        />
      </div>
      <p className="text-[0.78rem] text-soft">
        0° toward the drummer, 90° toward the drummer's right.
      </p>
    </>
  );
});
