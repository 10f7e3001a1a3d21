/** The frame round an open layout: top bar, the steps of the work, and what keeps it saved. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { Link, Outlet, useLocation, useParams } from "react-router";
import { Refused } from "../api/client";
import { layoutOf } from "../api/layouts";
import type { LayoutOut } from "../api/types";
import { door } from "../core/door";
import { Editor } from "../core/editor";
import { wire } from "../core/wire";
import { AtKitProvider } from "../parts/atkit/log";
import { InState, type LayoutState } from "../parts/atkit/State";
import { ConflictDialog } from "../parts/ConflictDialog";
import { EditorContext, useEditor, useEditorPart } from "../parts/editing";
import { HandsProvider, useStep } from "../parts/hands";
import { KeyList } from "../parts/KeyList";
import { LitProvider } from "../parts/lit";
import { LogProvider } from "../parts/log";
import { NotSaved } from "../parts/NotSaved";
import { useNarrow } from "../parts/narrow";
import { Piece } from "../parts/Piece";
import { PhoneBar } from "../parts/top/PhoneBar";
import { TopBar } from "../parts/top/TopBar";
import { fetchAhead } from "./pieces";
import { Steps } from "./Steps";
import { StepsOnAPhone } from "./StepsOnAPhone";

/** The step that was opened is drawn by then; the others are fetched. */
const AHEAD_MS = 400;

export function LayoutShell() {
  const id = Number(useParams().id);
  const opened = useQuery({
    queryKey: ["layout", id],
    queryFn: () => layoutOf(id),
    gcTime: 0,
    staleTime: 0,
  });
  // Asked again when a network is back, and not answered: what is open stays open.
  if (opened.error && !opened.data)
    return (
      <main className="p-8" role="alert">
        <h1 className="text-xl">This layout cannot be opened</h1>
        <p>{opened.error.message}</p>
        <p className="mt-2 flex gap-4">
          <Link className="underline" to="/">
            Go to your sessions
          </Link>
          {opened.error instanceof Refused && (
            <a className="underline" href={`/api/layouts/${id}/file`}>
              Download it as it is
            </a>
          )}
        </p>
      </main>
    );
  if (!opened.data) return <p className="p-8 text-soft">Opening the layout…</p>;
  return <Open key={id} out={opened.data} />;
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
      <HandsProvider>
        <LogProvider>
          <Frame />
        </LogProvider>
      </HandsProvider>
    </EditorContext>
  );
}

function Frame() {
  const conflict = useEditorPart((s) => s.conflict);
  const [keys, setKeys] = useState(false);
  const showKeys = useCallback(() => setKeys(true), []);
  const at = useLocation();
  const [state, choose] = useState<LayoutState>("planned");
  const phone = useNarrow();
  useEffect(() => {
    const soon = setTimeout(() => void fetchAhead(), AHEAD_MS);
    return () => clearTimeout(soon);
  }, []);
  useKeys(showKeys);
  useWarning();
  useTries();
  return (
    <LitProvider>
      <AtKitProvider looking={at.pathname.endsWith("/tape") || state === "stands"}>
        <div className={phone ? ON_A_PHONE : AT_A_DESK}>
          {phone ? <PhoneBar steps={<StepsOnAPhone />} /> : <TopBar onKeys={showKeys} />}
          {!phone && <Steps />}
          <main className="relative flex min-h-0 min-w-0 flex-col overflow-clip">
            <NotSaved />
            <div className="min-h-0 flex-1">
              <Piece at={at.pathname}>
                {EITHER.test(at.pathname) ? (
                  <InState state={state} choose={choose}>
                    <Outlet />
                  </InState>
                ) : (
                  <Outlet />
                )}
              </Piece>
            </div>
          </main>
        </div>
        {conflict && <ConflictDialog conflict={conflict} />}
        <KeyList open={keys} onClose={() => setKeys(false)} />
      </AtKitProvider>
    </LitProvider>
  );
}

/** Steps that show the plan, or how it stands; elsewhere the plan is made, or the tape held to it. */
const EITHER = /\/(place|patch|pairs|sheet|log)$/;

const AT_A_DESK = "grid h-screen grid-cols-[76px_1fr] grid-rows-[52px_1fr] overflow-hidden";
const ON_A_PHONE =
  "grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)] overflow-hidden";

/** Where keys are letters; a slider or a box to tick has none of its own to undo. */
const TYPED = "input, textarea, [role=combobox], [role=listbox]";

/** Undo, redo and the list of keys from anywhere but a field. */
function useKeys(showKeys: () => void) {
  const step = useStep();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLElement && e.target.closest(TYPED)) return;
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z") {
        e.preventDefault();
        step(e.shiftKey ? "redo" : "undo");
      } else if (e.key === "?") showKeys();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [step, showKeys]);
}

/** The network is back, or somebody signed in: what waits goes at once. */
function useTries() {
  const editor = useEditor();
  useEffect(() => {
    const now = () => editor.tryNow();
    window.addEventListener("online", now);
    const leave = door.subscribe(() => !door.isShut() && now());
    return () => {
      window.removeEventListener("online", now);
      leave();
    };
  }, [editor]);
}

/** Leaving with an unresolved conflict, or an edit still on its way, would lose something. */
function useWarning() {
  const editor = useEditor();
  useEffect(() => {
    const warn = (e: BeforeUnloadEvent) => {
      if (editor.unsafe) e.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [editor]);
}
