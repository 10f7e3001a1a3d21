/** "snare 120, kick 152, 168 high": a mic placed by what a tape would read. */
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Mic, Spot } from "../../../api/types";
import type { EditorState } from "../../../core/editor";
import { micOf } from "../../../core/edits";
import {
  howToType,
  lengthText,
  parseLength,
  type Ruler,
  threeAcross,
  unitMark,
} from "../../../core/units";
import { firstDrum } from "../../../core/words";
import { useEditor } from "../../../parts/editing";
import { useChangeMic } from "../../../parts/hands";
import { useLiveField } from "../../../parts/Live";
import { useMe } from "../../../parts/me";

type Three<T> = [T, T, T];

/** Snare, kick and height as they are now. */
function nowOf(mic: Mic, { doc, board }: EditorState): Three<number> {
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  const to = (kind: "snare" | "kick") => {
    const k = board?.sources.findIndex((s) => s.id === firstDrum(doc, kind).id) ?? -1;
    return board?.tape_m[row]?.[k] ?? 0;
  };
  return [to("snare"), to("kick"), (micOf(doc, mic.id) ?? mic).position_m[2]];
}

function usePlaceByTape(mic: Mic, onDone: () => void) {
  const editor = useEditor();
  const change = useChangeMic();
  return useMutation({
    mutationFn: ([snare_m, kick_m, height_m]: Three<number>) =>
      exactly<Spot>(
        api.POST("/api/place-by-tape", {
          body: { layout: editor.snapshot().still, mic: mic.id, snare_m, kick_m, height_m },
        }),
      ),
    onSuccess: ({ position_m }) => {
      onDone();
      if (position_m) change(mic.id, { position_m }, { why: `Placed ${mic.id} by tape` });
    },
  });
}

export function ByTape({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const ruler: Ruler = useMe();
  const [typed, setTyped] = useState<Three<string | null>>([null, null, null]);
  const [bad, setBad] = useState("");
  const find = usePlaceByTape(mic, () => setTyped([null, null, null]));
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const now = nowOf(mic, editor.snapshot());
    const values = typed.map((t, i) => (t === null ? (now[i] ?? 0) : parseLength(t, ruler)));
    const wrong = values.some((v) => v === null);
    setBad(wrong ? `${howToType(ruler)}.` : "");
    if (!wrong) find.mutate(values as Three<number>);
  };
  const wrong = bad || find.error?.message;
  return (
    <form onSubmit={submit} aria-label={`Place ${mic.id} by tape`}>
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        {["Snare", "Kick", "High"].map((name, i) => (
          <Distance
            key={name}
            name={name}
            typed={typed[i] ?? null}
            now={(state) => lengthText(nowOf(mic, state)[i] ?? 0, ruler)}
            onType={(text) => setTyped(typed.map((t, k) => (k === i ? text : t)) as typeof typed)}
          />
        ))}
      </div>
      <button type="submit" className="btn mt-1.5 w-full" disabled={typed.every((t) => t === null)}>
        Put it there
      </button>
      {wrong && (
        <p role="alert" className="mt-1 text-[0.83rem] text-hollow">
          {wrong}
        </p>
      )}
    </form>
  );
}

interface DistanceProps {
  name: string;
  typed: string | null;
  now: (state: EditorState) => string;
  onType: (text: string) => void;
}

function Distance(props: DistanceProps) {
  const ruler: Ruler = useMe();
  const editor = useEditor();
  const { typed, now } = props;
  const field = useLiveField((state) => typed ?? now(state));
  return (
    <label className="min-w-0">
      <span className="text-[0.8rem] text-soft">
        {props.name}
        {unitMark(ruler)}
      </span>
      <input
        className={`field num w-full px-1.5 font-bold ${ruler.units === "cm" ? "text-[1.05rem]" : "text-[0.85rem]"}`}
        ref={field}
        value={typed ?? now(editor.snapshot())}
        onChange={(e) => props.onType(e.target.value)}
      />
    </label>
  );
}
