/** Below the plan: the low end where the kit stands, decay by band, modes; drawn and as tables. */
import type { RoomBoard } from "../../api/types";
import { dbText, hzText } from "../../core/units";
import { DecayChart, LowEndChart, ModeChart } from "../../parts/curves/RoomCharts";

const HALVES = "grid h-full min-h-0 grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-5 px-4 pb-2";
const MOST_MODES = 60;

export type Which = "decay" | "modes" | "low";

export function Foot({ which, board }: { which: Which; board: RoomBoard }) {
  if (which === "low") return <LowEnd board={board} />;
  if (which === "modes") return <Modes board={board} />;
  return (
    <div className={HALVES}>
      <DecayChart board={board} />
      <div className="min-h-0 overflow-y-auto text-[0.85rem]">
        <DecayTable board={board} />
      </div>
    </div>
  );
}

function LowEnd({ board }: { board: RoomBoard }) {
  return (
    <div className={HALVES}>
      <LowEndChart board={board} />
      <div className="min-h-0 overflow-y-auto text-[0.88rem]">
        <p>
          What the nearest walls, floor and ceiling do to a source where the kit stands:{" "}
          <b className="text-kick">kick</b> drawn through, <b className="text-snare">snare</b>{" "}
          dashed, <b className="text-ring">overhead height</b> dotted, in dB against open air.
        </p>
        <Sways spots={board.spots} />
        <LowTable board={board} />
        <p className="mt-1 text-[0.78rem] text-soft">
          Images of the source in the surfaces round it (Waterhouse 1958); furniture and people are
          not in it. The ear decides.
        </p>
      </div>
    </div>
  );
}

function Sways({ spots }: { spots: RoomBoard["spots"] }) {
  if (spots.here.roughness_db === null) return null;
  return (
    <p className="mt-1">
      It sways by{" "}
      <strong className="num" data-rough>
        {spots.here.roughness_db.toFixed(1)} dB
      </strong>{" "}
      here
      {spots.smoothest_db !== null && (
        <>
          ; the smoothest spot of the map by{" "}
          <span className="num">{spots.smoothest_db.toFixed(1)} dB</span>
        </>
      )}
      .
    </p>
  );
}

function Modes({ board }: { board: RoomBoard }) {
  return (
    <div className={HALVES}>
      <div>
        <ModeChart board={board} />
        <ul className="text-[0.88rem]">
          {board.modes_words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
      <div className="min-h-0 overflow-y-auto">
        <ModeTable modes={board.modes} />
      </div>
    </div>
  );
}

function ModeTable({ modes }: { modes: RoomBoard["modes"] }) {
  return (
    <table className="w-full text-[0.85rem]">
      <caption className="sr-only">Modes of the room</caption>
      <thead className="sticky top-0 bg-panel text-left text-soft">
        <tr>
          {["Hz", "Order", "Kind"].map((h) => (
            <th key={h} className="font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {modes.slice(0, MOST_MODES).map((m, i) => (
          <tr key={i}>
            <td className="num">{m.hz.toFixed(1)}</td>
            <td className="num">{m.order.join(" ")}</td>
            <td>{m.kind}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const OCTAVES = [40, 63, 100, 160, 250];

/** The low end as a table: the three curves at five frequencies. */
function LowTable({ board }: { board: RoomBoard }) {
  const { frequency_hz, here } = board.spots;
  const nearest = (f: number) =>
    frequency_hz.reduce(
      (best, g, i) => (Math.abs(g - f) < Math.abs((frequency_hz[best] ?? 0) - f) ? i : best),
      0,
    );
  return (
    <table className="mt-1 w-full text-[0.85rem]">
      <caption className="sr-only">Boundary response where the kit stands, dB</caption>
      <thead className="text-left text-soft">
        <tr>
          <th className="font-normal">dB at Hz</th>
          {OCTAVES.map((f) => (
            <th key={f} className="num font-normal">
              {f}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Object.entries(here.curves).map(([name, values]) => (
          <tr key={name}>
            <th scope="row" className="text-left font-normal">
              {name}
            </th>
            {OCTAVES.map((f) => (
              <td key={f} className="num">
                {dbText(values[nearest(f)] ?? 0)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function DecayTable({ board }: { board: RoomBoard }) {
  const d = board.decay;
  return (
    <>
      <table className="w-full">
        <caption className="sr-only">Decay by octave band, seconds</caption>
        <thead className="text-left text-soft">
          <tr>
            {["Band", "Eyring, s", "Sabine, s"].map((h) => (
              <th key={h} className="font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {d.bands_hz.map((f, i) => (
            <tr key={f}>
              <td className="num">{hzText(f)}</td>
              <td className="num font-semibold">{d.eyring_s[i]?.toFixed(2)}</td>
              <td className="num">{d.sabine_s[i]?.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {d.mics.length > 0 && <p className="mt-2">{d.mics.map(directWords).join("; ")}.</p>}
      <p className="mt-1 text-[0.78rem] text-soft">
        {d.areas.map((a) => `${a.where} ${a.m2.toFixed(0)} m² ${a.material}`).join(", ")}. Kuttruff,
        Room Acoustics.
      </p>
    </>
  );
}

/** What a mic off the kit hears of the snare against the room. */
function directWords(m: RoomBoard["decay"]["mics"][number]): string {
  if (m.elsewhere) return `${m.mic} stands in another space`;
  const side = m.direct_db >= 0 ? "over" : "under";
  return `${m.mic} hears the snare ${Math.abs(m.direct_db).toFixed(0)} dB ${side} the room`;
}
