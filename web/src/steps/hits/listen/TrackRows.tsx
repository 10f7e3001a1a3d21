/** Every channel of the take as it is heard: in or out, alone, turned over, later, level, pan. */
import { memo } from "react";
import type { Heard } from "../../../api/types";
import { signedText } from "../../../core/units";
import { isOn, type Mixed, NOTHING, type Shift } from "../../../core/ways";
import { Slide } from "../../../parts/fields/Slide";
import type { Sides } from "./useSides";

const MOST_LATER = 20_000;

export function TrackRows({ sides }: { sides: Sides }) {
  const { mix, setMix, shift } = sides;
  const { tracks } = sides.deck.heard;
  const { shifts } = sides.sides[sides.side];
  return (
    <table className="w-full self-start text-[0.85rem]" aria-label="Channels as heard">
      <thead className="text-left text-[0.78rem] text-soft">
        <tr>
          <th className="font-normal">Channel</th>
          <th className="font-normal">heard</th>
          <th className="font-normal">flip</th>
          <th className="font-normal">samples later</th>
          <th className="font-normal">level</th>
          <th className="font-normal max-sm:hidden">pan</th>
        </tr>
      </thead>
      <tbody className="divide-y divide-hair">
        {tracks.map((t) => (
          <Row
            key={t.channel}
            track={t}
            shift={shifts[t.channel] ?? NOTHING}
            on={isOn(mix, t.channel)}
            alone={mix.alone.includes(t.channel)}
            more={mix.more[t.channel] ?? 0}
            pan={mix.pan[t.channel] ?? t.pan}
            {...{ setMix }}
            onShift={shift}
          />
        ))}
      </tbody>
    </table>
  );
}

interface RowProps {
  track: Heard;
  shift: Shift;
  on: boolean;
  alone: boolean;
  more: number;
  pan: number;
  setMix: (change: (mix: Mixed) => Mixed) => void;
  onShift: (channel: string, to: Shift) => void;
}

const without = (names: readonly string[], name: string) => names.filter((n) => n !== name);
const turned = (names: readonly string[], name: string) =>
  names.includes(name) ? without(names, name) : [...names, name];

const Row = memo(
  function Row(props: RowProps) {
    const { track, on, alone, setMix } = props;
    const { channel } = track;
    return (
      <tr data-heard-track={channel}>
        <th
          scope="row"
          className={`num py-0.5 text-left ${on ? "font-bold" : "font-normal text-soft line-through"}`}
        >
          {channel}
        </th>
        <td className="whitespace-nowrap">
          <Toggle
            label={`${channel} in the mix`}
            on={on}
            onTake={() => setMix((m) => ({ ...m, alone: [], muted: turned(m.muted, channel) }))}
          >
            in
          </Toggle>
          <Toggle
            label={`${channel} alone`}
            on={alone}
            onTake={() => setMix((m) => ({ ...m, alone: turned(m.alone, channel) }))}
          >
            alone
          </Toggle>
        </td>
        <Shifted {...props} />
        <Mixing {...props} />
      </tr>
    );
  },
  (a, b) =>
    a.track === b.track &&
    a.shift.flip === b.shift.flip &&
    a.shift.later === b.shift.later &&
    a.on === b.on &&
    a.alone === b.alone &&
    a.more === b.more &&
    a.pan === b.pan &&
    a.onShift === b.onShift,
);

function Shifted({ track: { channel }, shift, onShift }: RowProps) {
  return (
    <>
      <td>
        <Toggle
          label={`${channel} flip`}
          on={shift.flip}
          onTake={() => onShift(channel, { ...shift, flip: !shift.flip })}
        >
          flip
        </Toggle>
      </td>
      <td>
        <input
          type="number"
          className="field num w-16 py-0.5"
          aria-label={`${channel}, samples later`}
          min={0}
          max={MOST_LATER}
          value={shift.later}
          onChange={(e) => {
            const later = Number(e.target.value);
            if (later >= 0 && later <= MOST_LATER) onShift(channel, { ...shift, later });
          }}
        />
      </td>
    </>
  );
}

function Mixing({ track: { channel, side }, more, pan, setMix }: RowProps) {
  const level = (db: number) => setMix((m) => ({ ...m, more: { ...m.more, [channel]: db } }));
  const turn = (to: number) => setMix((m) => ({ ...m, pan: { ...m.pan, [channel]: to } }));
  const told = `${signedText(more, 0)} dB against the balance`;
  return (
    <>
      <td>
        <Slide
          className="w-16"
          label={`${channel}, level`}
          text={told}
          low={-20}
          high={10}
          step={1}
          value={more}
          onShow={level}
          onTake={level}
        />
      </td>
      <td className="max-sm:hidden">
        {side ? (
          <span className="text-[0.78rem] text-soft">side</span>
        ) : (
          <Slide
            className="w-16"
            label={`${channel}, pan`}
            text={pan ? `${Math.abs(pan).toFixed(0)} ${pan < 0 ? "left" : "right"}` : "middle"}
            low={-100}
            high={100}
            step={5}
            value={pan}
            onShow={turn}
            onTake={turn}
          />
        )}
      </td>
    </>
  );
}

function Toggle(props: { label: string; on: boolean; onTake: () => void; children: string }) {
  return (
    <button
      type="button"
      aria-label={props.label}
      aria-pressed={props.on}
      onClick={props.onTake}
      className={`mr-1 rounded-md border px-1.5 py-0.5 text-[0.78rem] pointer-coarse:min-h-9 ${props.on ? "border-ink bg-ink text-panel" : "border-hair text-soft"}`}
    >
      {props.children}
    </button>
  );
}
