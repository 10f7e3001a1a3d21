/** A close mic in the terms of its drum, its gap to the nearest cymbal, and its null. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../../api/client";
import type { DrumTerms, Mic, TermsOut } from "../../../api/types";
import { micOf } from "../../../core/edits";
import { clockText } from "../../../core/techniques";
import { lengthWithUnit, type Ruler, threeAcross } from "../../../core/units";
import { sourceName, the } from "../../../core/words";
import { useEditor, useEditorPart, useShared } from "../../../parts/editing";
import { LengthField } from "../../../parts/fields/LengthField";
import { Pick } from "../../../parts/fields/Pick";
import { NumberField, TextField } from "../../../parts/fields/typed";
import { useChangeMic } from "../../../parts/hands";
import { LaterAtRest } from "../../../parts/Later";
import { useMe } from "../../../parts/me";
import { useToast } from "../../../parts/toast";
import { NearAndFar } from "./NearAndFar";
import { NullToward } from "./NullToward";

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

type Set = (change: Partial<DrumTerms>) => void;

/** `ask` where nothing else tells of it: a hand that moves it is told with all that follows. */
function useTerms(mic: Mic, ask: boolean) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    enabled: ask,
    queryKey: ["terms", mic.id, mic.position_m, mic.aim, mic.job, still.kit],
    queryFn: () =>
      exactly<TermsOut>(api.POST("/api/drum-terms", { body: { layout: still, mic: mic.id } })),
    placeholderData: (old, query) => (query?.queryKey[1] === mic.id ? old : undefined),
    gcTime: 5_000,
  });
}

/**
 * As they are now: under a hand what is told of it, and when that has let go until they are known of
 * where it did.
 */
function useTermsNow(mic: Mic): TermsOut | undefined {
  const told = useShared(useEditor().following.close);
  const { data, isPending, isPlaceholderData } = useTerms(mic, !told);
  const known = !isPending && !isPlaceholderData;
  const rests = useEditorPart((s) => s.doc === s.still) && known;
  const [last, keep] = useState(told);
  if (told ? told !== last : last && rests) keep(told);
  return last?.mic === mic.id ? last.terms : data;
}

function usePut(mic: Mic) {
  const editor = useEditor();
  const change = useChangeMic();
  const say = useToast();
  return useMutation({
    mutationFn: (terms: DrumTerms) =>
      exactly<{ layout: { mics: Mic[] } }>(
        api.POST("/api/drum-terms/place", {
          body: { layout: editor.snapshot().still, mic: mic.id, terms },
        }),
      ),
    onSuccess: ({ layout }) => {
      const put = micOf(layout as Parameters<typeof micOf>[0], mic.id);
      if (put)
        change(
          mic.id,
          { position_m: put.position_m, aim: put.aim },
          { why: `Placed ${mic.id} at its drum` },
        );
    },
    onError: (e) => say(e.message),
  });
}

export function AtTheDrum({ mic }: { mic: Mic }) {
  const ruler = useMe();
  const still = useEditorPart((s) => s.still);
  const said = useTermsNow(mic);
  const put = usePut(mic);
  if (!said) return null;
  const { terms, cymbal, gap_m } = said;
  const wired = still.kit.drums.some((d) => d.id === mic.job && d.kind === "snare");
  const set: Set = (change) => put.mutate({ ...terms, ...change });
  return (
    <section className="space-y-2 border-t border-hair pt-2.5" aria-label="At the drum">
      <h3 className="text-[0.95rem]">At {the(sourceName(still, mic.job ?? ""))}</h3>
      <Spot terms={terms} set={set} ruler={ruler} />
      {cymbal && gap_m !== null && gap_m < 1 && (
        <p className="text-[0.83rem] text-soft" data-gap>
          {lengthWithUnit(gap_m, ruler)} to {the(sourceName(still, cymbal))}.
        </p>
      )}
      <LaterAtRest>
        <Look terms={terms} set={set} wires={terms.side === "under" && wired} />
        {still.kit.drums.some((d) => d.id === mic.job) && <NearAndFar mic={mic} />}
        <NullToward mic={mic} />
      </LaterAtRest>
    </section>
  );
}

function Spot({ terms, set, ruler }: { terms: DrumTerms; set: Set; ruler: Ruler }) {
  return (
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
  );
}

function Look({ terms, set, wires }: { terms: DrumTerms; set: Set; wires: boolean }) {
  return (
    <div className="grid grid-cols-3 gap-2">
      <Pick
        label="Side"
        value={terms.side}
        options={Object.keys(SIDES)}
        names={SIDES}
        onTake={(v) => set({ side: v as DrumTerms["side"] })}
      />
      <Pick
        label="Aimed at"
        value={terms.target ?? "free"}
        options={Object.keys(TARGETS)}
        names={wires ? { ...TARGETS, centre: "wires" } : TARGETS}
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
  );
}
