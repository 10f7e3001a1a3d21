/** Every cable from its mic to its box: across first, then along to where the box stands. */
import type { Layout, Stock } from "../../../api/types";
import { cableText, type Ruler } from "../../../core/units";
import { type Point2, path } from "../../../core/view";
import { micColour } from "../../../core/words";
import { useMe } from "../../../parts/me";

type Lead = Stock["leads"][number];

interface Props {
  doc: Layout;
  leads: readonly Lead[];
  /** The boxes on the drawing, by what they are called. */
  ends: ReadonlyMap<string, Point2>;
  to: (x: number, y: number) => Point2;
  /** The mic whose cable is pointed at. */
  lit: string | null;
}

export function Runs({ doc, leads, ends, to, lit }: Props) {
  const ruler = useMe();
  return (
    <g aria-hidden="true">
      {leads.map((lead) => {
        const mic = doc.mics.find((m) => m.id === lead.mic);
        const end = ends.get(lead.bank);
        if (!mic || !end) return null;
        const from = to(mic.position_m[0], mic.position_m[1]);
        return (
          <Run
            key={lead.mic}
            {...{ lead, from, end, ruler }}
            colour={micColour(mic, doc)}
            on={lit === lead.mic}
          />
        );
      })}
    </g>
  );
}

interface RunProps {
  lead: Lead;
  from: Point2;
  end: Point2;
  colour: string;
  on: boolean;
  ruler: Ruler;
}

function Run({ lead, from, end, colour, on, ruler }: RunProps) {
  const short = lead.cable === "";
  const corner: Point2 = [end[0], from[1]];
  return (
    <g>
      <path
        d={path([from, corner, end], false)}
        fill="none"
        stroke={short ? "var(--hollow)" : colour}
        strokeWidth={on ? 3.5 : 1.5}
        strokeOpacity={on ? 1 : 0.6}
        strokeDasharray={short ? "5 3" : undefined}
        data-run={lead.mic}
      />
      <circle cx={from[0]} cy={from[1]} r={on ? 5 : 2.5} fill={colour} />
      {on && (
        <text
          x={from[0] + 9}
          y={from[1] - 8}
          fontSize="13"
          fontWeight="700"
          className="num"
          fill="var(--ink)"
          stroke="var(--card)"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {`${lead.mic} ${cableText(lead.metres, ruler)}`}
        </text>
      )}
    </g>
  );
}
