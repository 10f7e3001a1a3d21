/** The named limits of the verdicts, each with the reason for its value; changed per layout. */
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, must } from "../../api/client";
import type { Layout } from "../../api/types";
import { Ask } from "../../parts/Ask";
import { useEditor, useEditorPart } from "../../parts/editing";

type Thresholds = NonNullable<Layout["thresholds"]>;

const NAMES: Record<keyof Thresholds, string> = {
  no_matter_level_db: "No matter from, dB apart",
  takes_db: "Heard when two take, dB of a drum in the mix",
  picture_takes_db: "The same for a stereo pair, dB",
  hollow_gain_db: "Hollow when a flip gains, dB of body",
  behind_ms: "Behind from, ms apart",
  echo_ms: "A second stroke from, ms apart",
  head_plane_deg: "Unsure within, degrees of a head's plane",
  same_angle_deg: "Alike within, degrees",
  null_db: "Unsure in a null from, dB down",
  near_surface_m: "Floor, wall, ceiling belong to a mic within about, m",
  reflection_db: "Reflections matter from 6 dB under, moved by, dB",
  under_full_db: "Usual peaks under full scale, dB",
  tape_error_m: "One tape reading is good to, m",
  air_error_c: "The air is known to, °C",
  strike_spread_m: "Hits land off the centre by, m",
};

export function Limits() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="font-semibold text-snare underline"
        onClick={() => setOpen(true)}
      >
        How pairs are judged
      </button>
      <Ask
        open={open}
        wide
        onClose={() => setOpen(false)}
        title="How pairs are judged"
        about="These limits are this layout's own; a change is saved with it and can be undone."
      >
        {open && <Form onDone={() => setOpen(false)} />}
      </Ask>
    </>
  );
}

function Form({ onDone }: { onDone: () => void }) {
  const editor = useEditor();
  const now = useEditorPart((s) => s.still.thresholds);
  const rows = useQuery({
    queryKey: ["thresholds", now],
    queryFn: () => must(api.POST("/api/thresholds", { body: now as Thresholds })),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const { still } = editor.snapshot();
    const thresholds = { ...still.thresholds } as Thresholds;
    for (const key of Object.keys(NAMES) as (keyof Thresholds)[])
      thresholds[key] = Number(form.get(key));
    onDone();
    if (JSON.stringify(thresholds) !== JSON.stringify(still.thresholds))
      editor.commit({ ...still, thresholds }, "Changed how pairs are judged");
  };
  return (
    <form onSubmit={submit} className="space-y-3">
      {rows.data?.map((row) => (
        <label key={row.name} className="grid grid-cols-[1fr_6rem] items-start gap-x-4">
          <span>
            <span className="font-semibold">{NAMES[row.name as keyof Thresholds]}</span>
            <span className="block text-[0.85rem] text-soft">{row.reason}</span>
          </span>
          <input
            name={row.name}
            type="number"
            step={row.name.endsWith("_m") ? "0.001" : "0.1"}
            required
            defaultValue={row.value}
            className="field num"
          />
        </label>
      ))}
      <button type="submit" className="btn-main" disabled={!rows.data}>
        Judge by these
      </button>
    </form>
  );
}
