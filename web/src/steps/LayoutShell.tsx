/** The frame round an open layout: top bar, the steps of the work, and what keeps it saved. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link, NavLink, Outlet, useParams } from "react-router";
import { api, exactly } from "../api/client";
import type { Counts, Layout, LayoutOut, Verdict } from "../api/types";
import { Editor } from "../core/editor";
import { partnerOf } from "../core/edits";
import type { Side } from "../core/view";
import { wire } from "../core/wire";
import { ConflictDialog } from "../parts/ConflictDialog";
import { EditorContext, type Lit, LitContext, useEditorPart } from "../parts/editing";
import { KeyList } from "../parts/KeyList";
import { Mark } from "../parts/Mark";
import { TopBar } from "../parts/TopBar";

export function LayoutShell() {
  const id = Number(useParams().id);
  const found = useQuery({
    queryKey: ["layout", id],
    queryFn: () =>
      exactly<LayoutOut>(api.GET("/api/layouts/{pk}", { params: { path: { pk: id } } })),
    gcTime: 0,
    staleTime: 0,
  });
  if (found.error)
    return (
      <main className="p-8" role="alert">
        <h1 className="text-xl">This layout cannot be opened</h1>
        <p>{found.error.message}</p>
        <Link className="underline" to="/">
          Go to your sessions
        </Link>
      </main>
    );
  if (!found.data) return <p className="p-8 text-soft">Opening the layout…</p>;
  return <Open key={id} out={found.data} />;
}

function Open({ out }: { out: LayoutOut }) {
  const queries = useQueryClient();
  const [first] = useState(out);
  const [editor, setEditor] = useState<Editor | null>(null);
  useEffect(() => {
    const made = new Editor(first, wire, localStorage);
    setEditor(made);
    return () => {
      made.close();
      void queries.invalidateQueries({ queryKey: ["sessions"] });
    };
  }, [first, queries]);
  if (!editor) return null;
  return (
    <EditorContext value={editor}>
      <Frame editor={editor} />
    </EditorContext>
  );
}

function Frame({ editor }: { editor: Editor }) {
  const conflict = useEditorPart((s) => s.conflict);
  const trouble = useEditorPart((s) => s.trouble || s.puzzled);
  const mics = useEditorPart((s) => s.doc.mics.length);
  const brief = useEditorPart((s) => Boolean(s.still.brief));
  const room = useEditorPart((s) => Boolean(s.still.room));
  const kit = useEditorPart((s) => kitState(s.still));
  const wants = useEditorPart((s) => worstOf(s.board?.counts));
  const [selected, setSelected] = useState<string | null>(null);
  const [hovered, hover] = useState<string | null>(null);
  const [side, setSide] = useState<Side>("drummer");
  const [keys, setKeys] = useState(false);

  const select = useCallback(
    (id: string | null, extend = false) => {
      const { doc, focus } = editor.snapshot();
      if (id && extend && selected && selected !== id) {
        editor.open({ anchor: selected, mover: id, source: null });
      } else if (id) {
        const partner = partnerOf(doc, id);
        if (partner) editor.open({ anchor: partner, mover: id, source: null });
        else if (focus && focus.mover !== id && focus.anchor !== id) editor.open(focus);
      }
      setSelected(id);
    },
    [editor, selected],
  );
  const showKeys = useCallback(() => setKeys(true), []);
  const lit = useMemo<Lit>(
    () => ({ selected, hovered, select, hover, side, setSide }),
    [selected, hovered, select, side],
  );

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && e.target.closest(TYPED);
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z" && !typing) {
        e.preventDefault();
        void editor.step(e.shiftKey ? "redo" : "undo");
      } else if (e.key === "?" && !typing) setKeys(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [editor]);
  useEffect(() => {
    const warn = (e: BeforeUnloadEvent) => {
      if (editor.snapshot().saved === "conflict") e.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [editor]);

  return (
    <LitContext value={lit}>
      <div className="grid h-screen min-w-[900px] overflow-hidden grid-cols-[76px_1fr] grid-rows-[52px_1fr]">
        <TopBar onKeys={showKeys} />
        <nav
          aria-label="Steps of the work"
          className="flex flex-col border-r border-hair bg-panel pt-3"
        >
          <Step
            to="brief"
            name="Brief"
            mark={brief ? "together" : "no matter"}
            say={brief ? "answered" : "not answered yet"}
          />
          <Step
            to="room"
            name="Room"
            mark={room ? "together" : "no matter"}
            say={room ? "drawn" : "not drawn"}
          />
          <Step
            to="kit"
            name="Kit"
            mark={kit === "measured" ? "together" : kit === "unsure" ? "late" : "no matter"}
            say={KIT_SAYS[kit]}
          />
          <Step
            to="place"
            name="Place"
            mark={mics ? "together" : "no matter"}
            say={mics ? "mics placed" : "no mics yet"}
          />
          <Step
            to="pairs"
            name="Pairs"
            mark={wants}
            say={wants === "together" ? "nothing hollow or late" : "wants attention"}
          />
          <Step to="sheet" name="Sheet" mark="no matter" say="to print" />
        </nav>
        <main className="min-h-0 min-w-0">
          {trouble && (
            <p role="alert" className="bg-hollow px-4 py-1.5 text-[0.9rem] text-(--on)">
              {trouble}
            </p>
          )}
          <Outlet />
        </main>
      </div>
      {conflict && <ConflictDialog conflict={conflict} />}
      <KeyList open={keys} onClose={() => setKeys(false)} />
    </LitContext>
  );
}

/** Where keys are letters; a slider or a box to tick has none of its own to undo. */
const TYPED = "input:not([type=range]):not([type=checkbox]):not([type=radio]), select, textarea";

const KIT_SAYS = {
  drawn: "as drawn, not measured",
  measured: "its tape readings hold",
  unsure: "moved since it was measured",
};

/** Whether the kit was measured, and whether that still holds. */
function kitState(doc: Layout): keyof typeof KIT_SAYS {
  const readings = doc.kit.readings ?? [];
  if (!readings.length) return "drawn";
  return readings.every((r) => r.sure) ? "measured" : "unsure";
}

/** What the Pairs step asks for: the gravest verdict there is. */
function worstOf(counts: Counts | undefined): Verdict {
  if (!counts) return "no matter";
  return counts.hollow ? "hollow" : counts.late ? "late" : "together";
}

function Step(props: {
  to: string;
  name: string;
  mark: Parameters<typeof Mark>[0]["verdict"];
  say: string;
}) {
  return (
    <NavLink
      to={props.to}
      className={({ isActive }) =>
        `flex flex-col items-center gap-1 border-l-[3px] py-3 text-[0.88rem] ${isActive ? "border-ink bg-card font-bold" : "border-transparent text-soft hover:text-ink"}`
      }
    >
      <Mark verdict={props.mark} />
      {props.name}
      <span className="sr-only">, {props.say}</span>
    </NavLink>
  );
}
