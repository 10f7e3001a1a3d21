/** The stereo picture: where each drum appears, what mono keeps, and the pans against it. */
import { useState } from "react";
import type { Layout, PictureOut, PictureRow } from "../../api/types";
import { micOf } from "../../core/edits";
import { dbText } from "../../core/units";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { Slide } from "../../parts/fields/Slide";
import { Tick } from "../../parts/fields/Tick";
import { NumberField } from "../../parts/fields/typed";
import { useTake } from "../../parts/hands";
import { MicTag } from "../../parts/MicTag";
import { usePicture } from "./data";
import { Stage } from "./Stage";

export function Picture() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const found = usePicture();
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
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
          onTake={(outlook) =>
            editor.commit({ ...editor.snapshot().still, outlook }, `Chose the ${outlook}'s view`)
          }
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

type Pair = Layout["stereo_pairs"][number];
type ChangePair = (fields: Partial<Pair>, what: string) => void;

function useChangePair(picture: PictureRow): ChangePair {
  const editor = useEditor();
  return (fields, what) => {
    const { still } = editor.snapshot();
    const stereo_pairs = still.stereo_pairs.map((p) =>
      p.left === picture.left && p.right === picture.right ? { ...p, ...fields } : p,
    );
    editor.commit({ ...still, stereo_pairs }, what);
  };
}

function OnePicture({ picture, doc }: { picture: PictureRow; doc: Layout }) {
  return (
    <section aria-label={`Picture of ${picture.name}`} data-picture={picture.name}>
      <PairHead picture={picture} />
      <Stage picture={picture} doc={doc} />
      {picture.notes.map((n) => (
        <p key={n} className="mt-1 text-[0.85rem] font-semibold">
          {n}
        </p>
      ))}
      <WhereTable picture={picture} />
    </section>
  );
}

function PairHead({ picture }: { picture: PictureRow }) {
  const change = useChangePair(picture);
  const side = picture.coding === "mid-side";
  const over = { left: picture.right, right: picture.left };
  return (
    <header className="flex flex-wrap items-center gap-2">
      <h3 className="text-[1rem]">{picture.name}</h3>
      <span className="num text-[0.82rem] text-soft">
        {picture.left} {side ? "mid" : "left"}, {picture.right} {side ? "side" : "right"}
      </span>
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.78rem]"
        onClick={() => change(over, `Changed ${picture.left} and ${picture.right} over`)}
      >
        Change over
      </button>
      <Tick
        className="items-center text-[0.8rem] text-soft"
        checked={side}
        onTake={(on) =>
          change(
            { coding: on ? "mid-side" : "left-right" },
            on ? "Made it a mid-side pair" : "Made it a left-right pair",
          )
        }
      >
        mid-side
      </Tick>
      {side && <Width picture={picture} change={change} />}
      <Angles picture={picture} />
    </header>
  );
}

function Width({ picture, change }: { picture: PictureRow; change: ChangePair }) {
  const [shown, setShown] = useState<number | null>(null);
  const width = shown ?? picture.width;
  return (
    <div className="flex items-center gap-1.5 text-[0.8rem] text-soft">
      <span aria-hidden="true">Width</span>
      <Slide
        className="w-32"
        label="Width"
        low={0}
        high={2}
        step={0.05}
        value={width}
        onShow={setShown}
        onTake={(v) => {
          setShown(null);
          change({ width: v }, "Changed the width");
        }}
      />
      <span className="num">{width.toFixed(2)}</span>
    </div>
  );
}

function Angles({ picture }: { picture: PictureRow }) {
  if (picture.recording_deg === null) return null;
  return (
    <span className="ml-auto text-[0.82rem]">
      Recording angle <b className="num">{picture.recording_deg.toFixed(0)}°</b>
      {picture.kit_deg !== null && (
        <>
          , kit <b className="num">{picture.kit_deg.toFixed(0)}°</b>
        </>
      )}
    </span>
  );
}

function WhereTable({ picture }: { picture: PictureRow }) {
  return (
    <table className="mt-1 w-full text-[0.82rem]">
      <caption className="sr-only">Where each drum appears in {picture.name}</caption>
      <thead className="text-left text-soft">
        <tr>
          <th scope="col" className="font-semibold">
            Where it appears
          </th>
          <th scope="col" className="pl-2 text-right font-semibold">
            Mono body, dB
          </th>
          <th scope="col" className="pl-2 text-right font-semibold">
            Mono attack, dB
          </th>
        </tr>
      </thead>
      <tbody>
        {picture.sources.map((s) => (
          <tr key={s.source} data-appears={s.source}>
            <td>{s.words}</td>
            <td className="num text-right">{s.sure ? dbText(s.fold_body_db) : "unsure"}</td>
            <td className="num text-right">{s.sure ? dbText(s.fold_attack_db) : "unsure"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const STATE = {
  agrees: "text-ring",
  "other side": "text-hollow",
  apart: "text-latetext",
  closed: "text-latetext",
  "not chosen": "text-soft",
};

function Pans({ seen, doc }: { seen: PictureOut; doc: Layout }) {
  const take = useTake();
  const all = () => {
    const usual = new Map(seen.pans.map((p) => [p.channel, Math.round(p.usual)]));
    const channels = (doc.channels ?? []).flatMap((c) => {
      const pan = usual.get(c.id);
      return pan === undefined ? [] : [{ ...c, pan }];
    });
    if (channels.length)
      void take({ do: "channels", channels, why: `Panned as ${seen.main} hear it`.slice(0, 120) });
  };
  return (
    <section aria-label="Pans">
      <header className="flex flex-wrap items-center gap-3">
        <h3 className="text-[1rem]">Pans</h3>
        <button type="button" className="btn px-2 py-0.5 text-[0.8rem]" onClick={all}>
          Pan them as {seen.main} hear it; kick and snare to the middle
        </button>
      </header>
      <ul className="mt-1 space-y-1">
        {seen.pans.map((p) => (
          <OnePan key={p.channel || p.mic} pan={p} doc={doc} />
        ))}
      </ul>
    </section>
  );
}

function OnePan({ pan: p, doc }: { pan: PictureOut["pans"][number]; doc: Layout }) {
  const take = useTake();
  const mic = micOf(doc, p.mic);
  const track = doc.channels?.find((c) => c.id === p.channel);
  if (!mic) return null;
  return (
    <li className="flex items-center gap-3 text-[0.84rem]" data-pan={p.state}>
      <MicTag mic={mic} layout={doc} />
      {track ? (
        <div className="w-28 shrink-0">
          <NumberField
            label={`Pan of ${track.id} %, − left`}
            value={p.pan ?? 0}
            digits={0}
            low={-100}
            high={100}
            onTake={(pan) => void take({ do: "channels", channels: [{ ...track, pan }], why: "" })}
          />
        </div>
      ) : (
        <span className="w-28 shrink-0 text-soft">no track</span>
      )}
      <span className={`shrink-0 font-semibold ${STATE[p.state]}`}>{p.state}</span>
      <span className="min-w-0">{p.words}</span>
    </li>
  );
}
