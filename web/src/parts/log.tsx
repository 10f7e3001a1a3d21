/** What is written down on the day: sent in order, kept until it is there. */
import { useQueryClient } from "@tanstack/react-query";
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useState,
  useSyncExternalStore,
} from "react";
import { api, fateOf, must } from "../api/client";
import { newKey } from "../core/key";
import { giveBack } from "../core/lineDraft";
import { type Entry, LogBox } from "../core/logbox";
import { useEditor } from "./editing";
import { useToast } from "./toast";

/** All that is told of the lines of the log is asked for under this. */
export const TRIED = "tried";

const LogContext = createContext<LogBox | null>(null);

/** The entry as its own request; the body was made for it where it was written. */
function sent(session: number, { kind, body }: Entry): Promise<unknown> {
  const call = { params: { path: { pk: session } }, body: body as never };
  if (kind === "tape") return must(api.POST("/api/sessions/{pk}/tape", call));
  if (kind === "strike") return must(api.POST("/api/sessions/{pk}/tape/strike", call));
  if (kind === "lugs") return must(api.POST("/api/sessions/{pk}/lugs", call));
  if (kind === "kit") return must(api.POST("/api/layouts/{pk}/at-kit", ofLayout(body)));
  if (kind === "kit-strike")
    return must(api.POST("/api/layouts/{pk}/at-kit/strike", ofLayout(body)));
  if (kind === "tried") return must(api.POST("/api/layouts/{pk}/tried", ofLayout(body)));
  return must(api.POST("/api/sessions/{pk}/spots", call));
}

/** What is of a layout names it beside the rest. */
function ofLayout({ layout, ...body }: Entry["body"]) {
  return { params: { path: { pk: Number(layout) } }, body: body as never };
}

export function LogProvider({ children }: { children: ReactNode }) {
  const editor = useEditor();
  const say = useToast();
  const queries = useQueryClient();
  const [box, setBox] = useState<LogBox | null>(null);
  useEffect(() => {
    const session = editor.snapshot().out.session_id;
    const send = async (entry: Entry) => {
      await sent(session, entry);
      // What an earlier page had left can be there before anybody here knows that it was waiting.
      if (entry.kind === "tried") void queries.invalidateQueries({ queryKey: [TRIED] });
    };
    setBox(
      new LogBox(localStorage, session, {
        send,
        fateOf,
        away: (error) => editor.away(error),
        reached: () => editor.reached(),
        hold: () => editor.hold(),
        release: () => editor.release(),
        trouble: (error, entry) => {
          if (entry.kind === "tried") giveBack(localStorage, entry.body);
          say(`Not written down: ${error.message}`);
        },
      }),
    );
  }, [editor, say, queries]);
  return <LogContext value={box}>{children}</LogContext>;
}

/** Write something down; resolves when it is there. */
export function useLog() {
  const box = useContext(LogContext);
  return (kind: Entry["kind"], body: Record<string, unknown>): Promise<void> => {
    if (!box) return Promise.reject(new Error("The log is not open yet; try again."));
    return box.write({ kind, body: NAMED.has(kind) ? { key: newKey(), ...body } : body });
  };
}

/** What is written under a name of its own, so that sent twice it is there once. */
const NAMED = new Set<Entry["kind"]>(["tape", "lugs", "spots", "kit", "tried"]);

const NONE: readonly Entry[] = [];
const still = () => () => undefined;

/** What was written down here and is not there yet, oldest first. */
export function useUnsent(): readonly Entry[] {
  const box = useContext(LogContext);
  return useSyncExternalStore(box?.subscribe ?? still, box?.unsent ?? (() => NONE));
}
