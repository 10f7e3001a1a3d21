/** A pair: distances to snare and kick, the sum, and the better places for the mic that moves. */
import { ArrowLeftRight } from "lucide-react";
import { Link } from "react-router";
import type { Mic, PairRow, Spot } from "../../api/types";
import { decisionOn, micOf, paired, partnerOf, placed, unpaired, withMic } from "../../core/edits";
import {
  dbText,
  dipText,
  lengthText,
  lengthWithUnit,
  msText,
  type Ruler,
  unitMark,
} from "../../core/units";
import { bodySums, firstDrum, sourceName } from "../../core/words";
import { useEditor, useEditorPart, useLit } from "../../parts/editing";
import { VerdictWord } from "../../parts/Mark";
import { MicTag } from "../../parts/MicTag";
import { useMe } from "../../parts/me";
import { SumCurve } from "../../parts/SumCurve";
import { Why } from "../../parts/Why";

/** Nearer than this no tape can tell: the half millimetre that is not shown. */
const NOTHING_M = 0.0005;

export function PairPanel() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const asked = useEditorPart((s) => s.focus);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const focus = board?.focus;
  if (!focus) return <OpenPair anchor={asked?.anchor ?? lit.selected ?? doc.mics[0]?.id ?? ""} />;
  const [anchor, mover] = [micOf(doc, focus.a), micOf(doc, focus.b)];
  if (!anchor || !mover) return null;
  const row = (kind: "snare" | "kick") =>
    focus.rows.find((r) => r.source === firstDrum(doc, kind).id) as PairRow;
  const [snare, kick] = [row("snare"), row("kick")];
  const open = focus.rows.find((r) => r.source === focus.source) as PairRow;
  const band = board?.sources.find((s) => s.id === focus.source);
  const stereo = partnerOf(doc, anchor.id) === mover.id;
  const take = (spot: Spot, what: string) => {
    if (!spot.position_m) return;
    editor.commit(placed(doc, mover.id, spot.position_m), what);
  };
  const decision = decisionOn(doc, { a: anchor.id, b: mover.id, source: focus.source });
  return (
    <div className="space-y-3.5">
      <OpenPair anchor={anchor.id} mover={mover.id} />
      <Distances name="Snare" colour="border-snare" row={snare} mics={[anchor, mover]} />
      <Distances name="Kick" colour="border-kick" row={kick} mics={[anchor, mover]} />
      <Swing mover={mover} onTake={take} />
      <section>
        <label className="mb-1 flex items-center gap-2 text-[0.92rem] font-bold">
          Summed, mono
          <select
            className="field ml-auto max-w-28 py-0.5 text-[0.85rem] font-semibold"
            aria-label="Drum of the sum"
            value={focus.source}
            onChange={(e) =>
              editor.open({ anchor: anchor.id, mover: mover.id, source: e.target.value })
            }
          >
            {board?.sources.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
        <SumCurve
          sure={open.sign !== 0}
          focus={focus}
          bodyLow={band?.body_low_hz ?? 50}
          bodyHigh={band?.body_high_hz ?? 100}
        />
        <dl className="mt-1 grid grid-cols-[1fr_auto] gap-y-0.5 text-[0.9rem]">
          <dt className="text-soft">First dip</dt>
          <dd className="num font-bold">{dipText(open.first_dip_hz)}</dd>
          {bodySums(open).map((s) => (
            <div key={s.name} className="contents">
              <dt className="text-soft first-letter:uppercase">{s.name}</dt>
              <dd className="num font-bold">{dbText(s.db)} dB</dd>
            </div>
          ))}
        </dl>
        <p className="mt-1.5 text-[0.85rem]">
          <VerdictWord verdict={open.verdict} />: {open.words}
        </p>
      </section>
      <div className="flex items-center justify-between text-[0.9rem]">
        Polarity of {mover.id}
        <button
          type="button"
          className="btn py-1"
          aria-pressed={mover.preamp_flip}
          onClick={() =>
            editor.commit(
              withMic(doc, mover.id, { preamp_flip: !mover.preamp_flip }),
              mover.preamp_flip ? `Unflipped ${mover.id}` : `Flipped ${mover.id}`,
            )
          }
        >
          {mover.preamp_flip ? `Take ${mover.id}'s flip off` : `Flip ${mover.id} at the preamp`}
        </button>
      </div>
      <Why focus={focus} />
      {decision && (
        <p className="border-t border-hair pt-2 text-[0.88rem]">
          <span className="text-soft">
            Left on purpose for the {sourceName(doc, focus.source)}:
          </span>{" "}
          {decision.reason}
        </p>
      )}
      <div className="flex flex-wrap gap-2 text-[0.85rem]">
        <Link to="../pairs" className="font-semibold text-snare underline">
          All drums of this pair
        </Link>
        <button
          type="button"
          className="font-semibold text-snare underline"
          onClick={() =>
            editor.commit(
              stereo
                ? unpaired(doc, anchor.id, mover.id)
                : paired(doc, anchor.id, mover.id, `${anchor.id} and ${mover.id}`),
              stereo ? "No longer a stereo pair" : "Made a stereo pair",
            )
          }
        >
          {stereo ? "Not a stereo pair" : "Make it a stereo pair"}
        </button>
      </div>
      <p className="sr-only" aria-live="polite">
        {`${mover.id}: ${lengthWithUnit(snare.tape_b_m, ruler)} from the snare, ${lengthWithUnit(kick.tape_b_m, ruler)} from the kick`}
      </p>
    </div>
  );
}

/** Which two mics are open; the first stands, the second moves. */
function OpenPair({ anchor, mover }: { anchor: string; mover?: string }) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const one = micOf(doc, anchor);
  const two = mover ? micOf(doc, mover) : undefined;
  if (!one) return null;
  const name = doc.stereo_pairs.find(
    (p) => mover && [p.left, p.right].includes(anchor) && [p.left, p.right].includes(mover),
  )?.name;
  return (
    <header>
      <div className="flex items-center gap-2">
        <MicTag mic={one} layout={doc} lit />
        <span className="text-soft">with</span>
        {two && <MicTag mic={two} layout={doc} lit />}
        <select
          className="field ml-auto w-20 py-0.5"
          aria-label="The other mic"
          value={mover ?? ""}
          onChange={(e) => editor.open({ anchor, mover: e.target.value, source: null })}
        >
          {!mover && <option value="">choose</option>}
          {doc.mics
            .filter((m) => m.id !== anchor)
            .map((m) => (
              <option key={m.id}>{m.id}</option>
            ))}
        </select>
        {mover && (
          <button
            type="button"
            className="btn px-1.5 py-1"
            aria-label={`Let ${anchor} move instead of ${mover}`}
            title={`Let ${anchor} move instead of ${mover}`}
            onClick={() => editor.open({ anchor: mover, mover: anchor, source: null })}
          >
            <ArrowLeftRight size={15} />
          </button>
        )}
      </div>
      <p className="mt-1 text-[0.85rem] text-soft">
        {name ?? "two mics"}
        {two ? `; ${one.id} stands, ${two.id} moves` : ""}
      </p>
    </header>
  );
}

function Distances(props: { name: string; colour: string; row: PairRow; mics: [Mic, Mic] }) {
  const { name, colour, row, mics } = props;
  const ruler: Ruler = useMe();
  const off = row.tape_difference_m;
  const far = off > 0 ? mics[1].id : mics[0].id;
  const key = name.toLowerCase();
  return (
    <section className={`border-l-4 ${colour} pl-3`} aria-label={`Distances to the ${key}`}>
      <h3 className="text-[0.85rem] font-normal text-soft">
        {name}
        {unitMark(ruler)}
      </h3>
      <p
        className={`num flex gap-5 font-bold ${ruler.units === "cm" ? "text-[1.65rem]" : "text-[1.25rem]"} leading-tight`}
      >
        <span data-tape={`${key}-a`}>{lengthText(row.tape_a_m, ruler)}</span>
        <span data-tape={`${key}-b`}>{lengthText(row.tape_b_m, ruler)}</span>
      </p>
      <p className="text-[0.87rem]" data-off={key}>
        {Math.abs(off) < NOTHING_M
          ? "equal by tape"
          : `${far} ${lengthWithUnit(Math.abs(off), ruler)} further, ${msText(Math.abs(row.delay_s))} ms`}
      </p>
      <p className="text-[0.87rem]" data-verdict-of={key}>
        <VerdictWord verdict={row.verdict} />
      </p>
    </section>
  );
}

function Swing({ mover, onTake }: { mover: Mic; onTake: (spot: Spot, what: string) => void }) {
  const board = useEditorPart((s) => s.board);
  const ruler: Ruler = useMe();
  const places = board?.focus?.places;
  if (!places)
    return (
      <p className="text-[0.85rem] text-soft">
        These two can never be equal in time on every drum. Their sum is judged by the body each
        drum keeps; see it below.
      </p>
    );
  const { swing, equal_height, snare_only } = places;
  const there = (s: Spot) => (s.moved_m ?? 1) < NOTHING_M;
  const about = (s: Spot) =>
    s.position_m ? `${lengthWithUnit(s.moved_m ?? 0, ruler)} away` : s.words;
  return (
    <section className="space-y-2" aria-label={`Better places for ${mover.id}`}>
      <button
        type="button"
        className="btn-main w-full"
        disabled={!swing.position_m || there(swing) || places.ring.kind !== "circle"}
        onClick={() => onTake(swing, `Swung ${mover.id} onto the ring`)}
      >
        {there(swing) ? `${mover.id} is on the ring` : `Swing ${mover.id} onto the ring`}
      </button>
      <p className="text-[0.83rem] text-soft">
        {places.ring.kind !== "circle"
          ? places.ring.words
          : there(swing)
            ? "Every spot of the green ring has these two distances."
            : `Moves the capsule ${lengthWithUnit(swing.moved_m ?? 0, ruler)}, to snare ${lengthWithUnit(swing.snare_m ?? 0, ruler)} and kick ${lengthWithUnit(swing.kick_m ?? 0, ruler)}.`}
        {swing.words && places.ring.kind === "circle" ? ` ${swing.words}` : ""}
      </p>
      <div className="grid grid-cols-2 gap-2">
        <button
          type="button"
          className="btn px-2 text-[0.83rem]"
          disabled={!equal_height.position_m || there(equal_height)}
          title={about(equal_height)}
          onClick={() => onTake(equal_height, `Moved ${mover.id} to equal height`)}
        >
          Equal height
        </button>
        <button
          type="button"
          className="btn px-2 text-[0.83rem]"
          disabled={!snare_only.position_m || there(snare_only)}
          title={about(snare_only)}
          onClick={() => onTake(snare_only, `Moved ${mover.id} to equal snare distance`)}
        >
          Snare only, nearest
        </button>
      </div>
      {!there(swing) && (
        <p className="text-[0.8rem] text-soft">
          Equal height: {about(equal_height)}. Snare only: {about(snare_only)}.
        </p>
      )}
    </section>
  );
}
