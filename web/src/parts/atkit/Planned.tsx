/** Beside every mic that stands off its plan: where it was planned, and how far that is. */
import { lengthWithUnit, type Ruler } from "../../core/units";
import { type Point3, toScreen, type View } from "../../core/view";
import { useMe } from "../me";
import { Words } from "../Words";
import { useAsShown } from "./State";

/** How far its number stands off a planned place, on the side the mic is not. */
const LABEL_PX = 26;

export function Planned({ view }: { view: View }) {
  const shown = useAsShown();
  const ruler: Ruler = useMe();
  if (!shown) return null;
  return (
    <g data-planned>
      {shown.standing.mics
        .filter((m) => m.back.text)
        .map((m) => {
          const [x, y] = toScreen(m.position_m, view);
          const planned = m.position_m.map((p, i) => p - (m.off_m[i] ?? 0)) as unknown as Point3;
          const [px, py] = toScreen(planned, view);
          const far = Math.hypot(...m.off_m);
          const long = Math.max(Math.hypot(px - x, py - y), 1);
          const away = [((px - x) / long) * LABEL_PX, ((py - y) / long) * LABEL_PX] as const;
          return (
            <g key={m.mic} data-planned-of={m.mic}>
              <line x1={px} y1={py} x2={x} y2={y} stroke="var(--ink)" strokeWidth="1.5" />
              <circle
                cx={px}
                cy={py}
                r="6"
                fill="var(--paper)"
                stroke="var(--ink)"
                strokeWidth="1.5"
                strokeDasharray="3 2"
              />
              <text
                x={px + away[0]}
                y={py + away[1] + 4}
                textAnchor="middle"
                className="num"
                fontSize="11"
                fill="var(--ink)"
              >
                {lengthWithUnit(far, ruler)}
              </text>
            </g>
          );
        })}
    </g>
  );
}

/** What a mic's place is as it stands, in stand terms; nothing where the plan is shown. */
export function StandWords({ mic }: { mic: string }) {
  const row = useAsShown()?.standing.mics.find((m) => m.mic === mic);
  if (!row) return null;
  return (
    <div className="rounded-card bg-ring/15 p-2.5 text-[0.86rem]" data-stand-words={mic}>
      <p className="font-semibold">
        <Words of={row.words} />
      </p>
      <p>
        <Words of={row.back} />
      </p>
      <p className="text-soft">
        <Words of={row.open} />
      </p>
    </div>
  );
}
