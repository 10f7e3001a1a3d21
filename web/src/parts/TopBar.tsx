/** Session, layouts, air, units, saved state. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronDown, CircleHelp, Redo2, Undo2 } from "lucide-react";
import { DropdownMenu, Popover } from "radix-ui";
import { type FormEvent, memo, useState } from "react";
import { useNavigate } from "react-router";
import { api, must } from "../api/client";
import type { Layout, LayoutOut, Units } from "../api/types";
import { NewLayout } from "../steps/sessions/NewLayout";
import { AccountMenu, ITEM, MENU } from "./AccountMenu";
import { Ask } from "./Ask";
import { Brand } from "./Brand";
import { useEditor, useEditorPart } from "./editing";
import { useTellEffects } from "./effects";
import { useMe } from "./me";
import { Segmented } from "./Segmented";
import { useToast } from "./toast";

const RATES: Layout["sample_rate_hz"][] = [44100, 48000, 88200, 96000, 176400, 192000];

const SAVED = {
  saved: ["Saved", "text-ring"],
  saving: ["Saving…", "text-soft"],
  unsent: ["Not sent: the server is away. Kept here, tried again.", "text-latetext"],
  conflict: ["Changed elsewhere", "text-hollow"],
  refused: ["Not saved", "text-hollow"],
} as const;

export const TopBar = memo(function TopBar({ onKeys }: { onKeys: () => void }) {
  const editor = useEditor();
  const out = useEditorPart((s) => s.out);
  const saved = useEditorPart((s) => s.saved);
  const me = useMe();
  const queries = useQueryClient();
  const units = useMutation({
    mutationFn: (value: Units) => must(api.PUT("/api/account/units", { body: { units: value } })),
    onSuccess: (fresh) => queries.setQueryData(["me"], fresh),
  });
  const [words, colour] = SAVED[saved];
  return (
    <header className="col-span-2 flex min-w-0 items-center gap-4 border-b border-hair bg-panel px-4">
      <Brand />
      <p className="truncate max-[980px]:hidden">
        <strong>{out.session_name}</strong> <span className="text-soft">{out.place}</span>
      </p>
      <LayoutSwitcher out={out} />
      <span className="flex gap-1">
        <button
          type="button"
          className="btn px-2 py-1"
          disabled={!out.can_undo}
          title={out.undo_what && `Undo: ${out.undo_what}`}
          aria-label={`Undo${out.undo_what ? `: ${out.undo_what}` : ""}`}
          onClick={() => void editor.step("undo")}
        >
          <Undo2 size={16} />
        </button>
        <button
          type="button"
          className="btn px-2 py-1"
          disabled={!out.can_redo}
          title={out.redo_what && `Redo: ${out.redo_what}`}
          aria-label={`Redo${out.redo_what ? `: ${out.redo_what}` : ""}`}
          onClick={() => void editor.step("redo")}
        >
          <Redo2 size={16} />
        </button>
      </span>
      <span
        role="status"
        aria-live="polite"
        data-saved={saved}
        className={`ml-auto text-[0.85rem] font-semibold ${saved === "unsent" ? "" : "whitespace-nowrap"} ${colour}`}
      >
        {words}
      </span>
      <AirField />
      <Segmented
        small
        label="Units"
        value={me.units}
        options={[
          ["cm", "cm"],
          ["ft-in", "ft-in"],
          ["hand", "hand"],
        ]}
        onTake={(value) => units.mutate(value)}
      />
      <button
        type="button"
        className="p-1 text-soft hover:text-ink"
        aria-label="Keys"
        onClick={onKeys}
      >
        <CircleHelp size={20} />
      </button>
      <AccountMenu />
    </header>
  );
});

function AirField() {
  const editor = useEditor();
  const celsius = useEditorPart((s) => s.doc.air?.temperature_c ?? 20);
  const humidity = useEditorPart((s) => s.doc.air?.humidity_pct ?? null);
  const speed = useEditorPart((s) => s.board?.speed_of_sound_m_s);
  const tell = useTellEffects();
  const [open, setOpen] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const value = Number(form.get("celsius"));
    const rate = Number(form.get("rate")) as Layout["sample_rate_hz"];
    const damp = String(form.get("humidity")).trim();
    const air = { temperature_c: value, humidity_pct: damp === "" ? null : Number(damp) };
    setOpen(false);
    const { doc } = editor.snapshot();
    const same = value === celsius && air.humidity_pct === humidity;
    if (!Number.isFinite(value) || (same && rate === doc.sample_rate_hz)) return;
    const next = { ...doc, air, sample_rate_hz: rate };
    editor.commit(next, `Air at ${value} °C, ${rate} Hz`);
    if (!same) void tell(doc, next);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="num rounded-md px-1.5 py-1 text-[0.85rem] whitespace-nowrap hover:bg-tint">
        <span className="sr-only">Change the air:</span>
        <strong>{celsius.toFixed(1)} °C</strong>{" "}
        <span className="text-soft">{speed ? `${speed.toFixed(1)} m/s` : ""}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-50 w-64 rounded-card border border-hair bg-card p-3"
          sideOffset={6}
          aria-label="Air"
        >
          <form onSubmit={submit} className="space-y-2">
            <label className="block">
              <span className="text-[0.85rem] text-soft">Temperature of the room, °C</span>
              <input
                name="celsius"
                type="number"
                step="0.1"
                min="-20"
                max="50"
                defaultValue={celsius}
                className="field num w-full"
              />
            </label>
            <label className="block">
              <span className="text-[0.85rem] text-soft">
                Relative humidity, %; empty when nobody measured it
              </span>
              <input
                name="humidity"
                type="number"
                step="1"
                min="0"
                max="100"
                defaultValue={humidity ?? ""}
                className="field num w-full"
              />
            </label>
            <p className="text-[0.8rem] text-soft">
              They set the speed of sound, and with it every arrival: 343.2·√(T / 293.15 K) m/s, ISO
              9613-1; with humidity from 0 to 30 °C, Cramer 1993.
            </p>
            <label className="block">
              <span className="text-[0.85rem] text-soft">Session rate, Hz: sets the samples</span>
              <select
                name="rate"
                defaultValue={editor.snapshot().doc.sample_rate_hz}
                className="field num w-full"
              >
                {RATES.map((r) => (
                  <option key={r} value={r}>
                    {r}
                  </option>
                ))}
              </select>
            </label>
            <button type="submit" className="btn w-full">
              Take it
            </button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function LayoutSwitcher({ out }: { out: LayoutOut }) {
  const go = useNavigate();
  const say = useToast();
  const queries = useQueryClient();
  const editor = useEditor();
  const name = useEditorPart((s) => s.doc.name);
  const mics = useEditorPart((s) => s.doc.mics.length);
  const [making, setMaking] = useState(false);
  const [naming, setNaming] = useState<"copy" | "rename" | null>(null);
  const session = useQuery({
    queryKey: ["session", out.session_id],
    queryFn: () =>
      must(api.GET("/api/sessions/{pk}", { params: { path: { pk: out.session_id } } })),
  });
  const again = () => queries.invalidateQueries({ queryKey: ["session", out.session_id] });
  const call = { params: { path: { pk: out.id } } };
  const copy = useMutation({
    mutationFn: (name: string) =>
      must(api.POST("/api/layouts/{pk}/copy", { ...call, body: { name } })),
    onSuccess: (made) => {
      void again();
      go(`/layouts/${made.id}/place`);
    },
    onError: (e) => say(e.message),
  });
  const restore = useMutation({
    mutationFn: () => must(api.POST("/api/layouts/{pk}/restore", call)),
    onSuccess: () => {
      void again();
      go(`/layouts/${out.id}/place`);
    },
  });
  const remove = useMutation({
    mutationFn: () => must(api.DELETE("/api/layouts/{pk}", call)),
    onSuccess: () => {
      void again();
      const other = session.data?.layouts.find((l) => l.id !== out.id);
      say(`${name} is deleted`, { label: "Undo", run: () => restore.mutate() });
      go(other ? `/layouts/${other.id}/place` : "/");
    },
    onError: (e) => say(e.message),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const typed = String(new FormData(e.currentTarget).get("name")).trim();
    setNaming(null);
    if (!typed) return;
    if (naming === "copy") copy.mutate(typed);
    else
      editor.commit({ ...editor.snapshot().doc, name: typed }, `Renamed to ${typed.slice(0, 90)}`);
  };
  return (
    <>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="btn flex min-w-0 items-center gap-2 whitespace-nowrap">
          <span className="sr-only">Switch layout:</span>
          <span className="truncate">{name}</span>
          <span className="font-normal text-soft max-[1100px]:hidden">{mics} mics</span>
          <ChevronDown size={15} />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={MENU} align="start" sideOffset={6}>
            {session.data?.layouts.map((l) => (
              <DropdownMenu.Item
                key={l.id}
                className={ITEM}
                onSelect={() => go(`/layouts/${l.id}/place`)}
              >
                <span className={l.id === out.id ? "font-bold" : ""}>
                  {l.id === out.id ? name : l.name}
                </span>
                <span className="text-soft">{l.summary.mics.length} mics</span>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="my-1 border-t border-hair" />
            <DropdownMenu.Item className={ITEM} onSelect={() => setMaking(true)}>
              New layout
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setNaming("copy")}>
              Copy this layout
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setNaming("rename")}>
              Rename this layout
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => remove.mutate()}>
              Delete this layout
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Ask open={making} onClose={() => setMaking(false)} title="New layout">
        <NewLayout
          sessionId={out.session_id}
          onMade={(id) => {
            setMaking(false);
            void again();
            go(`/layouts/${id}/place`);
          }}
        />
      </Ask>
      <Ask
        open={naming !== null}
        onClose={() => setNaming(null)}
        title={naming === "copy" ? "Copy this layout" : "Rename this layout"}
      >
        <form onSubmit={submit} className="space-y-3">
          <label className="block">
            <span className="text-soft">Name</span>
            <input
              name="name"
              className="field w-full"
              maxLength={80}
              required
              defaultValue={naming === "copy" ? `${name.slice(0, 70)} copy` : name}
            />
          </label>
          <button type="submit" className="btn-main w-full">
            {naming === "copy" ? "Copy" : "Rename"}
          </button>
        </form>
      </Ask>
    </>
  );
}
