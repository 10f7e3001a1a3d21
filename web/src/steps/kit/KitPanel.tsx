/** The kit as a whole: where it comes from, which hand, the stool, one more part, keep it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { KeptKit, Kit, KitEdit, Preset, Stool } from "../../api/types";
import type { Ruler } from "../../core/units";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Choice, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { partsOf, useKitHands } from "./hands";

type AddKind = Extract<KitEdit, { do: "add" }>["kind"];
const KINDS: AddKind[] = [
  "rack",
  "floor",
  "snare",
  "kick",
  "hand drum",
  "crash",
  "ride",
  "hats",
  "splash",
  "china",
  "percussion",
];
const USUAL: Stool = {
  position_m: [0.24, -0.5],
  height_m: 0.5,
  zone_radius_m: 0.38,
  zone_top_m: 1.45,
  sweep_m: 0.08,
};

export function KitPanel({ onChoose }: { onChoose: (id: string) => void }) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const hands = useKitHands();
  const ruler: Ruler = useMe();
  const [kind, setKind] = useState<AddKind>("rack");
  const kit = doc.kit;
  const stool = kit.stool ?? null;
  const setKit = (change: Partial<Kit>, what: string) =>
    editor.commit({ ...doc, kit: { ...kit, ...change } }, what);
  const setStool = (change: Partial<Stool>) =>
    setKit({ stool: { ...(stool ?? USUAL), ...change } }, "Changed the stool");
  const add = async () => {
    const before = new Set(partsOf(editor.snapshot().still).map((p) => p.id));
    if (!(await hands.commit(() => ({ do: "add", kind })))) return;
    const made = partsOf(editor.snapshot().still).find((p) => !before.has(p.id));
    if (made) onChoose(made.id);
  };
  return (
    <div className="space-y-4">
      <TextField
        label="This kit"
        value={kit.name}
        wrong="1 to 80 letters"
        onTake={(v) => {
          if (!v || v.length > 80) return false;
          setKit({ name: v }, `Named the kit ${v.slice(0, 80)}`);
          return true;
        }}
      />
      <p className="text-[0.88rem] text-soft">
        {kit.drums.length} drums, {(kit.cymbals ?? []).length} cymbals, {kit.hand ?? "right"}
        -handed.
      </p>
      <button
        type="button"
        className="btn w-full"
        onClick={() => void hands.commit(() => ({ do: "hand" }))}
      >
        Turn round for a {kit.hand === "left" ? "right" : "left"}-handed drummer
      </button>
      <div className="flex items-end gap-2">
        <div className="flex-1">
          <Choice
            label="One more"
            value={kind}
            options={KINDS}
            onTake={(v) => setKind(v as AddKind)}
          />
        </div>
        <button type="button" className="btn" onClick={() => void add()}>
          Add
        </button>
      </div>
      <TakeKit />
      <fieldset>
        <legend className="mb-1 font-bold">Drummer</legend>
        {stool ? (
          <div className="grid grid-cols-2 gap-2">
            <LengthField
              label="Stool height"
              metres={stool.height_m ?? 0.5}
              ruler={ruler}
              onTake={(m) => setStool({ height_m: m })}
            />
            <LengthField
              label="Top of the zone"
              metres={stool.zone_top_m ?? 1.45}
              ruler={ruler}
              onTake={(m) => setStool({ zone_top_m: m })}
            />
            <LengthField
              label="Zone round the stool"
              metres={stool.zone_radius_m ?? 0.38}
              ruler={ruler}
              onTake={(m) => setStool({ zone_radius_m: m })}
            />
            <LengthField
              label="Round the sticks"
              metres={stool.sweep_m ?? 0.08}
              ruler={ruler}
              onTake={(m) => setStool({ sweep_m: m })}
            />
            <LengthField
              label="Stool, right"
              metres={stool.position_m[0]}
              ruler={ruler}
              onTake={(m) => setStool({ position_m: [m, stool.position_m[1]] })}
            />
            <LengthField
              label="Stool, front"
              metres={stool.position_m[1]}
              ruler={ruler}
              onTake={(m) => setStool({ position_m: [stool.position_m[0], m] })}
            />
          </div>
        ) : (
          <button type="button" className="btn w-full" onClick={() => setStool({})}>
            Put the stool in
          </button>
        )}
      </fieldset>
    </div>
  );
}

/** Another kit in its place: a preset or one's own; and this one kept for next time. */
function TakeKit() {
  const editor = useEditor();
  const studio = useEditorPart((s) => s.out.studio_id);
  const kit = useEditorPart((s) => s.still.kit);
  const hands = useKitHands();
  const say = useToast();
  const queries = useQueryClient();
  const path = { params: { path: { pk: studio } } };
  const presets = useQuery({
    queryKey: ["presets"],
    queryFn: () => exactly<Preset[]>(api.GET("/api/kits")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const own = useQuery({
    queryKey: ["kits", studio],
    queryFn: () => exactly<KeptKit[]>(api.GET("/api/studios/{pk}/kits", path)),
  });
  const keep = useMutation({
    mutationFn: (body: Kit) =>
      exactly<KeptKit>(api.POST("/api/studios/{pk}/kits", { ...path, body })),
    onSuccess: (kept) => {
      void queries.invalidateQueries({ queryKey: ["kits", studio] });
      void queries.invalidateQueries({ queryKey: ["starts"] });
      say(`${kept.name} is kept for next time`);
    },
    onError: (e) => say(e.message),
  });
  const drop = useMutation({
    mutationFn: (kept: KeptKit) =>
      must(
        api.DELETE("/api/studios/{pk}/kits/{kit}", {
          params: { path: { pk: studio, kit: kept.id } },
        }),
      ),
    onSuccess: (_, kept) => {
      void queries.invalidateQueries({ queryKey: ["kits", studio] });
      void queries.invalidateQueries({ queryKey: ["starts"] });
      say(`${kept.name} is no longer kept`, { label: "Undo", run: () => keep.mutate(kept.kit) });
    },
    onError: (e) => say(e.message),
  });
  const mine = own.data?.find((k) => k.name === kit.name);
  const every = [
    ...(own.data ?? []).map((k) => ({ name: k.name, kit: k.kit })),
    ...(presets.data ?? []),
  ];
  return (
    <div className="space-y-2">
      <label className="block">
        <span className="text-[0.8rem] text-soft">Take another kit; mics go with their drums</span>
        <select
          className="field w-full"
          aria-label="Take another kit"
          value=""
          onChange={(e) => {
            const found = every[Number(e.target.value)];
            if (found) void hands.commit(() => ({ do: "swap", kit: found.kit }));
          }}
        >
          <option value="">choose …</option>
          {every.map((k, i) => (
            <option key={`${k.name} ${i}`} value={i}>
              {k.name}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="btn w-full"
        disabled={keep.isPending}
        onClick={() => keep.mutate(editor.snapshot().still.kit)}
      >
        Keep {kit.name} for next time
      </button>
      {mine && (
        <button type="button" className="btn w-full" onClick={() => drop.mutate(mine)}>
          Forget the kept {mine.name}
        </button>
      )}
    </div>
  );
}
