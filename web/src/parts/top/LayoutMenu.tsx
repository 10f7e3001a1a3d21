/** Which layout of the session is open; another, a copy, another name, away with it. */
import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type FormEvent, useState } from "react";
import type { LayoutOut } from "../../api/types";
import { micsInWords } from "../../core/words";
import { NewLayout } from "../../steps/sessions/NewLayout";
import { ITEM, MENU } from "../AccountMenu";
import { Ask } from "../Ask";
import { useEditor, useEditorPart } from "../editing";
import { useHands } from "../hands";
import { OnPhone } from "./OnPhone";
import { useLayouts } from "./useLayouts";

type Asking = "new" | "copy" | "rename" | "phone";

export function LayoutMenu({ out }: { out: LayoutOut }) {
  const [asking, ask] = useState<Asking | null>(null);
  const work = useLayouts(out);
  const done = () => ask(null);
  return (
    <>
      <Switch out={out} work={work} ask={ask} />
      <Ask open={asking === "new"} onClose={done} title="New layout">
        <NewLayout
          sessionId={out.session_id}
          onMade={(id) => {
            done();
            work.opened(id);
          }}
        />
      </Ask>
      <OnPhone layout={out.id} open={asking === "phone"} onClose={done} />
      <Naming
        asking={asking}
        onClose={done}
        onCopy={(name) => {
          done();
          work.copy.mutate(name);
        }}
      />
    </>
  );
}

function Switch(props: {
  out: LayoutOut;
  work: ReturnType<typeof useLayouts>;
  ask: (what: Asking) => void;
}) {
  const { out, work, ask } = props;
  const name = useEditorPart((s) => s.still.name);
  const mics = useEditorPart((s) => s.doc.mics.length);
  const rows = [
    ["New layout", () => ask("new")],
    ["Copy this layout", () => ask("copy")],
    ["Rename this layout", () => ask("rename")],
    ["Delete this layout", () => work.remove.mutate()],
    ["Open on a phone", () => ask("phone")],
  ] as const;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="btn flex min-w-0 items-center gap-2 whitespace-nowrap">
        <span className="sr-only">Switch layout:</span>
        <span className="truncate">{name}</span>
        <span className="font-normal text-soft max-[1100px]:hidden">{micsInWords(mics)}</span>
        <ChevronDown size={15} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="start" sideOffset={6}>
          {work.layouts.map((l) => (
            <DropdownMenu.Item key={l.id} className={ITEM} onSelect={() => work.go(l.id)}>
              <span className={l.id === out.id ? "font-bold" : ""}>
                {l.id === out.id ? name : l.name}
              </span>
              <span className="text-soft">
                {l.summary ? micsInWords(l.summary.mics.length) : "not read"}
              </span>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 border-t border-hair" />
          {rows.map(([words, run]) => (
            <DropdownMenu.Item key={words} className={ITEM} onSelect={run}>
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Give what is kept another name, after every edit that was let go of before. */
function useRename() {
  const editor = useEditor();
  const hands = useHands();
  return async (name: string) => {
    await hands.settled();
    editor.commit({ ...editor.snapshot().still, name }, `Renamed to ${name.slice(0, 90)}`);
  };
}

const WORDS = {
  copy: ["Copy this layout", "Copy"],
  rename: ["Rename this layout", "Rename"],
} as const;

function Naming(props: {
  asking: Asking | null;
  onClose: () => void;
  onCopy: (name: string) => void;
}) {
  const { asking, onClose, onCopy } = props;
  const name = useEditorPart((s) => s.still.name);
  const rename = useRename();
  const what = asking === "copy" ? "copy" : "rename";
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const typed = String(new FormData(e.currentTarget).get("name")).trim();
    onClose();
    if (!typed) return;
    if (what === "copy") onCopy(typed);
    else void rename(typed);
  };
  return (
    <Ask open={asking === "copy" || asking === "rename"} onClose={onClose} title={WORDS[what][0]}>
      <form onSubmit={submit} className="space-y-3">
        <label className="block">
          <span className="text-soft">Name</span>
          <input
            name="name"
            className="field w-full"
            maxLength={80}
            required
            defaultValue={what === "copy" ? `${name.slice(0, 70)} copy` : name}
          />
        </label>
        <button type="submit" className="btn-main w-full">
          {WORDS[what][1]}
        </button>
      </form>
    </Ask>
  );
}
