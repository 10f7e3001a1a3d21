/** The stereo picture: where each drum appears, what mono keeps, and the pans against it. */
import type { Layout, PictureOut, PictureRow } from "../../api/types";
import { micOf, withMic } from "../../core/edits";
import { drumColour, sourceName } from "../../core/words";
import { useEditor, useEditorPart } from "../../parts/editing";
import { NumberField } from "../../parts/fields";
import { MicTag } from "../../parts/MicTag";
import { Segmented } from "../../parts/Segmented";
import { signed } from "./BestFlips";
import { usePicture } from "./data";

export function Picture() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const found = usePicture();
  if (found.error) return <p role="alert">{found.error.message}</p>;
  const seen = found.data;
  if (!seen) return <p className="text-soft">Looking…</p>;
  return (
    <div className={`space-y-5 ${found.isPlaceholderData ? "opacity-60" : ""}`}>
      <div className="flex flex-wrap items-center gap-3">
        <Segmented
          small
          label="Whose view"
          value={seen.seen_from}
          options={[
            ["drummer", "Drummer's view"],
            ["audience", "Audience's view"],
          ]}
          onTake={(outlook) => editor.commit({ ...doc, outlook }, `Chose the ${outlook}'s view`)}
        />
        <span className="text-[0.82rem] text-soft">
          Left and right as the speakers stand; mono against the two speakers' energy.
        </span>
      </div>
      {seen.pairs.length === 0 && (
        <p className="text-soft">
          No stereo pair yet. Choose two mics on Place and make them a pair.
        </p>
      )}
      {seen.pairs.map((p) => (
        <OnePicture key={`${p.left} ${p.right}`} picture={p} doc={doc} />
      ))}
      {seen.pans.length > 0 && <Pans seen={seen} doc={doc} />}
    </div>
  );
}

function OnePicture({ picture, doc }: { picture: PictureRow; doc: Layout }) {
  const editor = useEditor();
  const change = (fields: Partial<Layout["stereo_pairs"][number]>, what: string) =>
    editor.commit(
      {
        ...doc,
        stereo_pairs: doc.stereo_pairs.map((p) =>
          p.left === picture.left && p.right === picture.right ? { ...p, ...fields } : p,
        ),
      },
      what,
    );
  const side = picture.coding === "mid-side";
  return (
    <section aria-label={`Picture of ${picture.name}`} data-picture={picture.name}>
      <header className="flex flex-wrap items-center gap-2">
        <h3 className="text-[1rem]">{picture.name}</h3>
        <span className="num text-[0.82rem] text-soft">
          {picture.left} {side ? "mid" : "left"}, {picture.right} {side ? "side" : "right"}
        </span>
        <button
          type="button"
          className="btn px-2 py-0.5 text-[0.78rem]"
          onClick={() =>
            change(
              { left: picture.right, right: picture.left },
              `Changed ${picture.left} and ${picture.right} over`,
            )
          }
        >
          Change over
        </button>
        <label className="flex items-center gap-1.5 text-[0.8rem] text-soft">
          <input
            type="checkbox"
            checked={side}
            onChange={(e) =>
              change(
                { coding: e.target.checked ? "mid-side" : "left-right" },
                e.target.checked ? "Made it a mid-side pair" : "Made it a left-right pair",
              )
            }
          />
          mid-side
        </label>
        {side && (
          <label className="flex items-center gap-1.5 text-[0.8rem] text-soft">
            Width
            <input
              type="range"
              min="0"
              max="2"
              step="0.05"
              value={picture.width}
              onChange={(e) => change({ width: Number(e.target.value) }, "Changed the width")}
            />
            <span className="num">{picture.width.toFixed(2)}</span>
          </label>
        )}
        {picture.recording_deg !== null && (
          <span className="ml-auto text-[0.82rem]">
            Recording angle <b className="num">{picture.recording_deg.toFixed(0)}°</b>
            {picture.kit_deg !== null && (
              <>
                , kit <b className="num">{picture.kit_deg.toFixed(0)}°</b>
              </>
            )}
          </span>
        )}
      </header>
      <Stage picture={picture} doc={doc} />
      {picture.notes.map((n) => (
        <p key={n} className="mt-1 text-[0.85rem] font-semibold">
          {n}
        </p>
      ))}
      <table className="mt-1 w-full text-[0.82rem]">
        <caption className="sr-only">Where each drum appears in {picture.name}</caption>
        <thead className="text-left text-soft">
          <tr>
            <th scope="col" className="font-semibold">
              Where it appears
            </th>
            <th scope="col" className="text-right font-semibold">
              Mono body, dB
            </th>
            <th scope="col" className="text-right font-semibold">
              Mono attack, dB
            </th>
          </tr>
        </thead>
        <tbody>
          {picture.sources.map((s) => (
            <tr key={s.source} data-appears={s.source}>
              <td>{s.words}</td>
              <td className="num text-right">{s.sure ? signed(s.fold_body_db) : "unsure"}</td>
              <td className="num text-right">{s.sure ? signed(s.fold_attack_db) : "unsure"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const WIDE = 640;
const HIGH = 78;
const ROW = 15;

/** From speaker to speaker, every drum on its place; names that would meet stand one above the other. */
function Stage({ picture, doc }: { picture: PictureRow; doc: Layout }) {
  const x = (percent: number) => WIDE / 2 + (percent / 100) * (WIDE / 2 - 46);
  const ends: number[] = [];
  const placed = picture.sources
    .filter((s) => s.placed)
    .map((s) => ({ ...s, name: sourceName(doc, s.source) }))
    .sort((a, b) => a.percent - b.percent)
    .map((s) => {
      const half = s.name.length * 2.9 + 6;
      let row = ends.findIndex((end) => end < x(s.percent) - half);
      if (row < 0) row = ends.length;
      ends[row] = x(s.percent) + half;
      return { ...s, row };
    });
  const high = HIGH + Math.max(0, ends.length - 3) * ROW;
  const floor = high - 16;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${high}`}
      className="mt-1 block w-full"
      role="img"
      aria-label={`${picture.name} from left to right: ${placed.map((p) => p.name).join(", ")}`}
    >
      <line x1={x(-100)} x2={x(100)} y1={floor} y2={floor} stroke="var(--ink)" strokeWidth="1.2" />
      {[-100, -50, 0, 50, 100].map((p) => (
        <g key={p}>
          <line x1={x(p)} x2={x(p)} y1={floor - 4} y2={floor + 4} stroke="var(--ink)" />
          <text
            x={x(p)}
            y={high - 1}
            fontSize="9.5"
            textAnchor="middle"
            className="num"
            fill="var(--soft)"
          >
            {p === 0 ? "middle" : `${Math.abs(p * 0.3).toFixed(0)}° ${p < 0 ? "left" : "right"}`}
          </text>
        </g>
      ))}
      {placed.map((s) => {
        const drum = doc.kit.drums.find((d) => d.id === s.source);
        const colour = drum ? drumColour(drum.kind) : "var(--cymbal)";
        const top = floor - 12 - s.row * ROW;
        return (
          <g key={s.source}>
            <line
              x1={x(s.percent)}
              x2={x(s.percent)}
              y1={floor}
              y2={top + 2}
              stroke={colour}
              strokeWidth="1.4"
            />
            <circle cx={x(s.percent)} cy={floor} r="4" fill={colour} />
          </g>
        );
      })}
      {placed.map((s) => (
        <text
          key={s.source}
          data-stage={s.source}
          x={x(s.percent)}
          y={floor - 12 - s.row * ROW}
          fontSize="10.5"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--ink)"
          stroke="var(--paper)"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {s.name}
        </text>
      ))}
    </svg>
  );
}

const STATE = {
  agrees: "text-ring",
  "other side": "text-hollow",
  apart: "text-latetext",
  "not chosen": "text-soft",
};

function Pans({ seen, doc }: { seen: PictureOut; doc: Layout }) {
  const editor = useEditor();
  const set = (layout: Layout, id: string, pan: number | null) => withMic(layout, id, { pan });
  const all = () => {
    let next = doc;
    for (const p of seen.pans) next = set(next, p.mic, Math.round(p.heard));
    editor.commit(next, `Panned as ${seen.main} hear it`.slice(0, 120));
  };
  return (
    <section aria-label="Pans">
      <header className="flex flex-wrap items-center gap-3">
        <h3 className="text-[1rem]">Pans of the close mics</h3>
        <button type="button" className="btn px-2 py-0.5 text-[0.8rem]" onClick={all}>
          Pan them as {seen.main} hear it
        </button>
      </header>
      <ul className="mt-1 space-y-1">
        {seen.pans.map((p) => {
          const mic = micOf(doc, p.mic);
          if (!mic) return null;
          return (
            <li key={p.mic} className="flex items-center gap-3 text-[0.84rem]" data-pan={p.state}>
              <MicTag mic={mic} layout={doc} />
              <div className="w-28">
                <NumberField
                  label="Pan %, − left"
                  value={p.pan ?? 0}
                  digits={0}
                  low={-100}
                  high={100}
                  onTake={(v) => editor.commit(set(doc, p.mic, v), `Panned ${p.mic}`)}
                />
              </div>
              <span className={`font-semibold ${STATE[p.state]}`}>{p.state}</span>
              <span className="min-w-0">{p.words}</span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
