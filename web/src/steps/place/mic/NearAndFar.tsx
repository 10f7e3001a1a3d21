/** A close mic nearer and further: low end, attack and neighbours, pattern by pattern. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Mic, Nearness, Pattern } from "../../../api/types";
import { channelsOf } from "../../../core/edits";
import { NearCurves } from "../../../parts/curves/NearCurves";
import { useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useMe } from "../../../parts/me";

function useNearness(mic: Mic, open: boolean) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: [
      "nearness",
      mic.id,
      still.mics.find((m) => m.id === mic.id),
      channelsOf(still, mic.id),
      still.kit,
      still.room,
    ],
    queryFn: ({ signal }) =>
      exactly<Nearness>(
        api.POST("/api/nearness", { body: { layout: still, mic: mic.id }, signal }),
      ),
    enabled: open,
    placeholderData: (old, query) => (query?.queryKey[1] === mic.id ? old : undefined),
    gcTime: 5_000,
  });
}

export function NearAndFar({ mic }: { mic: Mic }) {
  const [open, setOpen] = useState(false);
  const [pattern, setPattern] = useState<Pattern | null>(null);
  const ruler = useMe();
  const { data, error } = useNearness(mic, open);
  const shown = pattern ?? mic.pattern;
  const curve = data?.patterns.find((p) => p.pattern === shown);
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="text-[0.9rem] font-semibold">Nearer and further</summary>
      {error && (
        <p role="alert" className="text-hollow">
          {error.message}
        </p>
      )}
      {data && curve && (
        <div className="mt-1.5 space-y-1.5">
          <p className="text-[0.85rem]">{data.words}</p>
          <Pick
            label="As with"
            value={shown}
            options={data.patterns.map((p) => p.pattern)}
            onTake={(v) => setPattern(v as Pattern)}
          />
          <NearCurves near={data} curve={curve} ruler={ruler} />
        </div>
      )}
    </details>
  );
}
