/** The room's figures in one row, biggest first. */
import type { RoomBoard } from "../../api/types";
import { lengthWithUnit, type Ruler } from "../../core/units";

export function Figures({ board, ruler }: { board: RoomBoard; ruler: Ruler }) {
  const d = board.decay;
  const rows = [
    [`${d.mid_s.toFixed(2)} s`, "decay in the middle, Eyring"],
    [`${d.schroeder_hz.toFixed(0)} Hz`, "Schroeder: below it single modes"],
    [lengthWithUnit(d.critical_m, ruler), "critical distance, omni"],
    [`${d.volume_m3.toFixed(0)} m³`, `${d.surface_m2.toFixed(0)} m² of surface`],
  ] as const;
  return (
    <dl className="grid grid-cols-2 gap-x-3 gap-y-2">
      {rows.map(([value, name]) => (
        <div key={name}>
          <dd
            className="num text-[1.25rem] leading-tight font-bold"
            data-figure={name.split(":")[0]}
          >
            {value}
          </dd>
          <dt className="text-[0.78rem] text-soft">{name}</dt>
        </div>
      ))}
    </dl>
  );
}
