/** A close mic in the terms of its drum, its gap to the nearest cymbal, and its null. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../api/client";
import type { DrumTerms, Layout, Mic, NullOut, TermsOut } from "../../api/types";
import { withMic } from "../../core/edits";
import { clockText } from "../../core/techniques";
import { lengthWithUnit, threeAcross } from "../../core/units";
import { sourceName } from "../../core/words";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Choice, NumberField, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";

const SIDES: Record<DrumTerms["side"], string> = {
  over: "over",
  under: "under, beyond",
  inside: "inside",
  beside: "beside the shell",
};
const TARGETS: Record<NonNullable<DrumTerms["target"]>, string> = {
  free: "by tilt",
  centre: "centre",
  edge: "edge",
  shell: "shell",
};

export function AtTheDrum({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const ruler = useMe();
  const say = useToast();
  const still = useEditorPart((s) => s.still);
  const said = useQuery({
    queryKey: ["terms", mic.id, mic.position_m, mic.aim, mic.job, still.kit],
    queryFn: () =>
      exactly<TermsOut>(api.POST("/api/drum-terms", { body: { layout: still, mic: mic.id } })),
    placeholderData: (old, query) => (query?.queryKey[1] === mic.id ? old : undefined),
    gcTime: 5_000,
  });
  const put = useMutation({
    mutationFn: (terms: DrumTerms) =>
      exactly<{ layout: Layout }>(
        api.POST("/api/drum-terms/place", {
          body: { layout: editor.snapshot().still, mic: mic.id, terms },
        }),
      ),
    onSuccess: ({ layout }) => editor.commit(layout, `Placed ${mic.id} at its drum`),
    onError: (e) => say(e.message),
  });
  if (!said.data) return null;
  const { terms, cymbal, gap_m } = said.data;
  const wired = still.kit.drums.some((d) => d.id === mic.job && d.kind === "snare");
  const set = (change: Partial<DrumTerms>) => put.mutate({ ...terms, ...change });
  return (
    <section className="space-y-2 border-t border-hair pt-2.5" aria-label="At the drum">
      <h3 className="text-[0.95rem]">At the {sourceName(still, mic.job ?? "").toLowerCase()}</h3>
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        <LengthField
          label={terms.side === "beside" ? "Down it" : "Off it"}
          metres={terms.height_m}
          ruler={ruler}
          onTake={(m) => set({ height_m: m })}
        />
        <LengthField
          label="From rim"
          metres={terms.in_from_rim_m}
          ruler={ruler}
          onTake={(m) => set({ in_from_rim_m: m })}
        />
        <TextField
          label="Clock"
          value={clockText(terms.clock_h)}
          wrong="an hour, 0 to 12"
          onTake={(text) => {
            const n = Number(text.replace(",", "."));
            if (text === "" || !Number.isFinite(n) || n < 0 || n > 12) return false;
            set({ clock_h: n % 12 });
            return true;
          }}
        />
      </div>
      <div className="grid grid-cols-3 gap-2">
        <Choice
          label="Side"
          value={terms.side}
          options={Object.keys(SIDES)}
          names={SIDES}
          onTake={(v) => set({ side: v as DrumTerms["side"] })}
        />
        <Choice
          label="Aimed at"
          value={terms.target ?? "free"}
          options={Object.keys(TARGETS)}
          names={terms.side === "under" && wired ? { ...TARGETS, centre: "wires" } : TARGETS}
          onTake={(v) => set({ target: v as DrumTerms["target"] })}
        />
        <NumberField
          label="Tilt, °"
          value={terms.tilt_deg}
          digits={0}
          low={-90}
          high={90}
          onTake={(v) => set({ tilt_deg: v, target: "free" })}
        />
      </div>
      {cymbal && gap_m !== null && gap_m < 1 && (
        <p className="text-[0.83rem] text-soft" data-gap>
          {lengthWithUnit(gap_m, ruler)} to the {sourceName(still, cymbal).toLowerCase()}.
        </p>
      )}
      <Null mic={mic} />
    </section>
  );
}

/** Turn the null to a neighbour, and say how much of it that takes out. */
function Null({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const still = useEditorPart((s) => s.still);
  const [from, setFrom] = useState("");
  const [off, setOff] = useState(30);
  const turn = useMutation({
    mutationFn: () =>
      exactly<NullOut>(
        api.POST("/api/null-aim", {
          body: {
            layout: editor.snapshot().still,
            mic: mic.id,
            neighbour: from || null,
            off_deg: off,
          },
        }),
      ),
    onSuccess: ({ aim, neighbour }) => {
      const now = editor.snapshot().still;
      editor.commit(
        withMic(now, mic.id, { aim: [...aim] }),
        `Null of ${mic.id} toward the ${neighbour}`,
      );
    },
  });
  const others = [...still.kit.drums, ...(still.kit.cymbals ?? [])].filter((p) => p.id !== mic.job);
  return (
    <div className="space-y-1.5">
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <Choice
          label="Null toward"
          value={from}
          options={["", ...others.map((p) => p.id)]}
          names={{ "": "the loudest", ...Object.fromEntries(others.map((p) => [p.id, p.name])) }}
          onTake={setFrom}
        />
        <button type="button" className="btn" onClick={() => turn.mutate()}>
          Turn it
        </button>
      </div>
      <label className="flex items-center gap-2 text-[0.8rem] text-soft">
        at most {off}° off its drum
        <input
          type="range"
          className="flex-1 accent-(--ring)"
          aria-label="How far the front may leave the drum, degrees"
          min={0}
          max={60}
          step={5}
          value={off}
          onChange={(e) => setOff(Number(e.target.value))}
        />
      </label>
      {turn.data && (
        <p className="text-[0.83rem]" data-null>
          {turn.data.words}
        </p>
      )}
      {turn.error && (
        <p role="alert" className="text-[0.83rem] text-hollow">
          {turn.error.message}
        </p>
      )}
    </div>
  );
}
