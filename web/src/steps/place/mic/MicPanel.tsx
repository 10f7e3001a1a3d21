/** One mic: typed distances, place, aim, pattern, what it is for, and every switch. */
import type { Mic } from "../../../api/types";
import { channelOf, micOf, techniqueOf } from "../../../core/edits";
import { lengthText, type Ruler, threeAcross } from "../../../core/units";
import { useEditorPart, useLit, useShared } from "../../../parts/editing";
import { LengthField } from "../../../parts/fields/LengthField";
import { TextField } from "../../../parts/fields/typed";
import { useChangeMic, useChangeTracks, useStep, useTake } from "../../../parts/hands";
import { LaterAtRest, OneByOne, Space } from "../../../parts/Later";
import { useLiveField } from "../../../parts/Live";
import { MicTag } from "../../../parts/MicTag";
import { useMe } from "../../../parts/me";
import { pressed } from "../../../parts/pressed";
import { useToast } from "../../../parts/toast";
import { useStanding } from "../techniques/data";
import { AimAt, Holds, Polarity } from "./Aim";
import { AtTheDrum } from "./AtTheDrum";
import { ByTape } from "./ByTape";
import { Hears } from "./Hears";
import { HowLoud } from "./HowLoud";
import { MicNudge } from "./MicNudge";
import { WhatFor } from "./WhatFor";

interface Props {
  mic: Mic;
  onTechnique: (id: string) => void;
}

export function MicPanel({ mic, onTechnique }: Props) {
  const ruler: Ruler = useMe();
  return (
    <div className="space-y-3.5">
      {/* None at once: what was there before is put away in that frame. */}
      <OneByOne first={0}>
        <Head mic={mic} />
        <PartOf mic={mic} onTechnique={onTechnique} />
        <MicNudge mic={mic} />
        <ByTape mic={mic} key={`${mic.id} ${ruler.units}`} />
        <Where mic={mic} />
        {mic.role === "close" && mic.job && <AtTheDrum key={mic.id} mic={mic} />}
      </OneByOne>
      <LaterAtRest meanwhile={<Space />}>
        <OneByOne meanwhile={<Space />}>
          <WhatFor mic={mic} />
          <HowLoud mic={mic} />
          <AimAt mic={mic} />
          <Holds mic={mic} />
          <Polarity mic={mic} />
          <TrackDelay mic={mic} />
          <Hears mic={mic} />
          <CopyOrTakeAway mic={mic} />
        </OneByOne>
      </LaterAtRest>
    </div>
  );
}

function Head({ mic }: { mic: Mic }) {
  const doc = useEditorPart((s) => s.still);
  const blocked = useEditorPart((s) => s.board?.blocked[mic.id]);
  return (
    <div className="space-y-3.5">
      <header className="flex items-center gap-2">
        <MicTag mic={mic} layout={doc} lit />
        <h2 className="truncate text-[1.05rem]">{mic.name}</h2>
      </header>
      {blocked && (
        <p role="alert" className="rounded-md border border-hollow p-2 text-[0.88rem] text-hollow">
          {blocked}
        </p>
      )}
    </div>
  );
}

function PartOf({ mic, onTechnique }: Props) {
  const own = useEditorPart((s) => techniqueOf(s.still, mic.id)?.id);
  const name = useStanding(!useShared(pressed)).data?.find((r) => r.id === own)?.name;
  if (!own) return null;
  return (
    <p className="text-[0.85rem] text-soft">
      Part of{" "}
      <button type="button" className="font-semibold underline" onClick={() => onTechnique(own)}>
        {name ?? "a technique"}
      </button>
    </p>
  );
}

function Where({ mic }: { mic: Mic }) {
  const ruler: Ruler = useMe();
  const change = useChangeMic();
  return (
    <div className={`grid ${threeAcross(ruler)} gap-2`}>
      {WAYS.map((label, axis) => (
        <Along
          key={label}
          {...{ label, axis, mic, ruler }}
          onTake={(m) => {
            const p: Mic["position_m"] = [...mic.position_m];
            p[axis] = m;
            change(mic.id, { position_m: p });
          }}
        />
      ))}
    </div>
  );
}

const WAYS = ["Right", "Front", "Height"] as const;

interface AlongProps {
  label: string;
  axis: number;
  mic: Mic;
  ruler: Ruler;
  onTake: (metres: number) => void;
}

/** How far it is one way, also while a hand moves it. */
function Along({ axis, mic, ...rest }: AlongProps) {
  const metres = mic.position_m[axis] ?? 0;
  const field = useLiveField((s) =>
    lengthText(micOf(s.doc, mic.id)?.position_m[axis] ?? metres, rest.ruler),
  );
  return <LengthField {...rest} {...{ metres, field }} />;
}

function TrackDelay({ mic }: { mic: Mic }) {
  const change = useChangeTracks();
  const track = useEditorPart((s) => channelOf(s.still, mic.id));
  if (!track) return null;
  return (
    <TextField
      label="Delay on the track afterwards, samples"
      value={String(track.track_delay_samples)}
      wrong="whole samples, 0 to 20000"
      onTake={(v) => {
        const n = Number(v);
        if (v === "" || !Number.isInteger(n) || n < 0 || n > 20000) return false;
        change(mic.id, { track_delay_samples: n });
        return true;
      }}
    />
  );
}

function CopyOrTakeAway({ mic }: { mic: Mic }) {
  const take = useTake();
  const step = useStep();
  const lit = useLit();
  const say = useToast();
  const double = async () => {
    const done = await take({ do: "add-mic", like: mic.id });
    if (done?.made) lit.select(done.made);
  };
  const takeAway = async () => {
    if (!(await take({ do: "remove-mics", mics: [mic.id] }))) return;
    lit.select(null);
    say(`${mic.id} is taken away`, { label: "Undo", run: () => step("undo") });
  };
  return (
    <div className="flex gap-2">
      <button type="button" className="btn flex-1" onClick={() => void double()}>
        Copy
      </button>
      <button type="button" className="btn flex-1" onClick={() => void takeAway()}>
        Take away
      </button>
    </div>
  );
}
