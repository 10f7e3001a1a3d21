/** Session, layouts, air, units, saved state. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { CircleHelp, Redo2, Undo2 } from "lucide-react";
import { memo } from "react";
import { api, must } from "../../api/client";
import type { LayoutOut, Units } from "../../api/types";
import { AccountMenu } from "../AccountMenu";
import { Brand } from "../Brand";
import { useEditorPart } from "../editing";
import { Hint } from "../fields/Hint";
import { Segmented } from "../fields/Segmented";
import { useStep } from "../hands";
import { useMe } from "../me";
import { Air } from "./Air";
import { LayoutMenu } from "./LayoutMenu";

const SAVED = {
  saved: ["Saved", "text-ring"],
  saving: ["Saving…", "text-soft"],
  unsent: ["Not sent: the server is away. Kept here, tried again.", "text-latetext"],
  stranger: ["Not sent: sign in again. Kept here.", "text-latetext"],
  conflict: ["Changed elsewhere", "text-hollow"],
  refused: ["Not saved", "text-hollow"],
} as const;

export const TopBar = memo(function TopBar({ onKeys }: { onKeys: () => void }) {
  const out = useEditorPart((s) => s.out);
  return (
    <header className="col-span-2 flex min-w-0 items-center gap-4 border-b border-hair bg-panel px-4">
      <Brand />
      <p className="truncate max-[980px]:hidden">
        <strong>{out.session_name}</strong> <span className="text-soft">{out.place}</span>
      </p>
      <LayoutMenu out={out} />
      <UndoRedo out={out} />
      <SavedState />
      <Air />
      <UnitsChoice />
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

const STEPS = { undo: ["Undo", Undo2], redo: ["Redo", Redo2] } as const;

export function UndoRedo({ out }: { out: LayoutOut }) {
  return (
    <span className="flex gap-1">
      <Step way="undo" what={out.undo_what} can={out.can_undo} />
      <Step way="redo" what={out.redo_what} can={out.can_redo} />
    </span>
  );
}

/** One step back or forth, and what it would be. */
function Step({ way, what, can }: { way: "undo" | "redo"; what: string; can: boolean }) {
  const step = useStep();
  const [name, Icon] = STEPS[way];
  const words = what ? `${name}: ${what}` : name;
  return (
    <Hint words={what && words}>
      <button
        type="button"
        className="btn px-2 py-1"
        disabled={!can}
        aria-label={words}
        onClick={() => step(way)}
      >
        <Icon size={16} />
      </button>
    </Hint>
  );
}

/** What has many words has a line of its own on a phone. */
const LONG = "narrow:order-last narrow:ml-0 narrow:basis-full";

export function SavedState() {
  const saved = useEditorPart((s) => s.saved);
  const [words, colour] = SAVED[saved];
  return (
    <span
      role="status"
      aria-live="polite"
      data-saved={saved}
      className={`ml-auto text-[0.85rem] font-semibold ${saved === "unsent" || saved === "stranger" ? LONG : "whitespace-nowrap"} ${colour}`}
    >
      {words}
    </span>
  );
}

export function UnitsChoice() {
  const me = useMe();
  const queries = useQueryClient();
  const units = useMutation({
    mutationFn: (value: Units) => must(api.PUT("/api/account/units", { body: { units: value } })),
    onSuccess: (fresh) => queries.setQueryData(["me"], fresh),
  });
  return (
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
  );
}
