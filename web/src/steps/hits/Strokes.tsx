/** Every stroke on a line of time: which drum it is, why one is left out, and putting it right. */
import { useState } from "react";
import type { HitRow, Layout, Take, TakeTold } from "../../api/types";
import { drumColour, sourceName } from "../../core/words";
import { useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { useSize } from "../../parts/useSize";
import type { TakesHere } from "./useTakes";

interface Props {
  take: Take;
  takes: TakesHere;
  told: TakeTold;
}

export function Strokes({ take, takes, told }: Props) {
  const doc = useEditorPart((s) => s.still);
  const [chosen, choose] = useState<number | null>(null);
  const hit = told.hits.find((h) => h.number === chosen);
  const out = told.hits.filter((h) => h.out);
  return (
    <div className="space-y-3">
      <Line {...{ told, doc, chosen, choose }} />
      {hit ? (
        <Correct {...{ hit, take, takes, doc }} />
      ) : (
        <p className="text-soft">Choose a stroke to see what it was taken for.</p>
      )}
      {out.length > 0 && (
        <ul aria-label="Left out" className="text-[0.9rem]">
          {out.map((h) => (
            <li key={h.number} data-out={h.number}>
              <button type="button" className="num underline" onClick={() => choose(h.number)}>
                {h.at_s.toFixed(2)} s
              </button>{" "}
              {h.source ? sourceName(doc, h.source) : "unknown"}: {h.out}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

interface LineProps {
  told: TakeTold;
  doc: Layout;
  chosen: number | null;
  choose: (n: number) => void;
}

const HIGH = 84;

function Line({ told, doc, chosen, choose }: LineProps) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const x = (s: number) => 8 + (s / Math.max(told.seconds, 1)) * (width - 16);
  return (
    <div ref={ref}>
      {width > 0 && (
        <svg width={width} height={HIGH} role="group" aria-label="Strokes of the take">
          <line x1={8} x2={width - 8} y1={HIGH - 22} y2={HIGH - 22} stroke="var(--hair)" />
          {told.hits.map((h, n) => (
            <RunName key={h.number} {...{ hit: h, doc }} before={told.hits[n - 1]} x={x(h.at_s)} />
          ))}
          {told.hits.map((h) => (
            <Stroke
              key={h.number}
              {...{ hit: h, doc, choose }}
              x={x(h.at_s)}
              on={h.number === chosen}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

/** The drum's name where a run of its strokes begins. */
function RunName(props: { hit: HitRow; before: HitRow | undefined; doc: Layout; x: number }) {
  const { hit, before, doc, x } = props;
  if (!hit.source || before?.source === hit.source) return null;
  return (
    <text x={x - 2} y={HIGH - 2} fontSize="12" fill="var(--soft)" aria-hidden="true">
      {sourceName(doc, hit.source)}
    </text>
  );
}

interface StrokeProps {
  hit: HitRow;
  doc: Layout;
  x: number;
  on: boolean;
  choose: (n: number) => void;
}

function Stroke({ hit, doc, x, on, choose }: StrokeProps) {
  const drum = doc.kit.drums.find((d) => d.id === hit.source);
  const colour = drum ? drumColour(drum.kind) : "var(--nomatter)";
  const high = Math.max(8, 40 + hit.level_db / 1.2);
  const name = hit.source ? sourceName(doc, hit.source) : "unknown";
  return (
    <g
      role="button"
      tabIndex={0}
      data-stroke={hit.number}
      aria-pressed={on}
      aria-label={`${hit.at_s.toFixed(2)} s, ${name}${hit.out ? `, left out: ${hit.out}` : ""}`}
      onClick={() => choose(hit.number)}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          choose(hit.number);
        }
      }}
      className="cursor-pointer"
    >
      <rect x={x - 6} y={0} width={12} height={HIGH} fill="transparent" />
      <line
        x1={x}
        x2={x}
        y1={HIGH - 22}
        y2={HIGH - 22 - high}
        stroke={colour}
        strokeWidth={on ? 5 : 3}
        strokeOpacity={hit.out ? 0.35 : 1}
        strokeDasharray={hit.out ? "3 2" : undefined}
      />
      {on && <circle cx={x} cy={HIGH - 18} r="4" fill="var(--ink)" />}
    </g>
  );
}

const OUT = "left out";

interface CorrectProps {
  hit: HitRow;
  take: Take;
  takes: TakesHere;
  doc: Layout;
}

/** Whatever somebody says of a stroke goes before what was found. */
function Correct({ hit, take, takes, doc }: CorrectProps) {
  const sources = [...doc.kit.drums, ...(doc.kit.cymbals ?? [])];
  const say = (value: string) =>
    takes.say.mutate({
      ...take,
      drums: { ...take.drums, [String(hit.ms)]: value === OUT ? null : value },
    });
  return (
    <div className="flex flex-wrap items-end gap-3 rounded-lg border border-hair bg-card p-3">
      <p>
        <span className="num">{hit.at_s.toFixed(2)} s</span>
        <br />
        <span className="text-[0.85rem] text-soft">
          {hit.said ? "as you said" : hit.sure ? "found" : `not sure, maybe ${hit.rival ?? ""}`}
        </span>
      </p>
      <Pick
        label="It is"
        value={hit.source ?? OUT}
        options={[...sources.map((s) => s.id), OUT]}
        names={Object.fromEntries(sources.map((s) => [s.id, s.name]))}
        onTake={say}
      />
      {hit.out && <p className="text-latetext">{hit.out}</p>}
      {takes.say.error && <p role="alert">{takes.say.error.message}</p>}
    </div>
  );
}
