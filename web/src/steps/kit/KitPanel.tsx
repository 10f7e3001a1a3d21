/** The kit as a whole: where it comes from, which hand, the stool, one more part, keep it. */
import { useState } from "react";
import type { Edit, Kit, Layout, Stool } from "../../api/types";
import { counted } from "../../core/words";
import { useEditor, useEditorPart } from "../../parts/editing";
import { LengthFields, type LengthRow } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { NameField } from "../../parts/fields/typed";
import { useTake } from "../../parts/hands";
import { TakeKit } from "./TakeKit";

type AddKind = Extract<Edit, { do: "add" }>["kind"];
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
const USUAL = {
  position_m: [0.24, -0.5],
  height_m: 0.5,
  zone_radius_m: 0.38,
  zone_top_m: 1.45,
  sweep_m: 0.08,
} satisfies Stool;

/** Change a field of the kit itself, on what is kept. */
function useSetKit() {
  const editor = useEditor();
  return (change: (kit: Kit) => Partial<Kit>, what: string) => {
    const { still } = editor.snapshot();
    const next: Layout = { ...still, kit: { ...still.kit, ...change(still.kit) } };
    editor.commit(next, what);
  };
}

export function KitPanel({ onChoose }: { onChoose: (id: string) => void }) {
  const kit = useEditorPart((s) => s.still.kit);
  const take = useTake();
  const setKit = useSetKit();
  return (
    <div className="space-y-4">
      <NameField
        label="This kit"
        value={kit.name}
        onTake={(name) => setKit(() => ({ name }), `Named the kit ${name}`)}
      />
      <p className="text-[0.88rem] text-soft">
        {counted(kit.drums.length, "drum")}, {counted((kit.cymbals ?? []).length, "cymbal")},{" "}
        {kit.hand ?? "right"}
        -handed.
      </p>
      <button type="button" className="btn w-full" onClick={() => void take({ do: "hand" })}>
        Turn round for a {kit.hand === "left" ? "right" : "left"}-handed drummer
      </button>
      <OneMore onChoose={onChoose} />
      <fieldset>
        <legend className="mb-1 font-bold">Drummer</legend>
        <StoolFields />
      </fieldset>
      <TakeKit />
    </div>
  );
}

function OneMore({ onChoose }: { onChoose: (id: string) => void }) {
  const take = useTake();
  const [kind, setKind] = useState<AddKind>("rack");
  const add = async () => {
    const done = await take({ do: "add", kind });
    if (done?.made) onChoose(done.made);
  };
  return (
    <div className="flex items-end gap-2">
      <div className="min-w-0 flex-1">
        <Pick label="One more" value={kind} options={KINDS} onTake={(v) => setKind(v as AddKind)} />
      </div>
      <button type="button" className="btn" onClick={() => void add()}>
        Add
      </button>
    </div>
  );
}

function StoolFields() {
  const stool = useEditorPart((s) => s.still.kit.stool ?? null);
  const setKit = useSetKit();
  const set = (change: Partial<Stool>) =>
    setKit((kit) => ({ stool: { ...(kit.stool ?? USUAL), ...change } }), "Changed the stool");
  if (!stool)
    return (
      <button type="button" className="btn w-full" onClick={() => set({})}>
        Put the stool in
      </button>
    );
  const now = { ...USUAL, ...stool };
  const [x, y] = stool.position_m;
  const rows: LengthRow[] = [
    ["Stool height", now.height_m, (m) => set({ height_m: m })],
    ["Top of the zone", now.zone_top_m, (m) => set({ zone_top_m: m })],
    ["Zone round the stool", now.zone_radius_m, (m) => set({ zone_radius_m: m })],
    ["Round the sticks", now.sweep_m, (m) => set({ sweep_m: m })],
    ["Stool, right", x, (m) => set({ position_m: [m, y] })],
    ["Stool, front", y, (m) => set({ position_m: [x, m] })],
  ];
  return (
    <div className="grid grid-cols-2 gap-2">
      <LengthFields rows={rows} />
    </div>
  );
}
