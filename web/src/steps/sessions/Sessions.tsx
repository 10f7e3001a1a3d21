/** The sessions of one's studios: a drawing and the verdicts of each layout. */
import { useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link } from "react-router";
import { api, must } from "../../api/client";
import type { SessionOut } from "../../api/types";
import { AccountMenu } from "../../parts/AccountMenu";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { LengthsProvider } from "./lengths";
import { NewSession } from "./NewSession";
import { OneSession } from "./OneSession";
import { Rename } from "./Rename";
import { Upload } from "./Upload";

/** Sessions fetched at a time. */
const A_PAGE = 24;

const path = (pk: number) => ({ params: { path: { pk } } });

/** The list, and what can be done with one of it. */
function useSessions() {
  const queries = useQueryClient();
  const say = useToast();
  const again = () => queries.invalidateQueries({ queryKey: ["sessions"] });
  const [words, setWords] = useState("");
  const q = useDeferredValue(words.trim());
  const list = useInfiniteQuery({
    queryKey: ["sessions", q],
    queryFn: ({ pageParam }) =>
      must(api.GET("/api/sessions", { params: { query: { q, before: pageParam, most: A_PAGE } } })),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < A_PAGE ? undefined : page.at(-1)?.id),
    placeholderData: (old) => old,
  });
  const copy = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/copy", path(pk))),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const restore = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/restore", path(pk))),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const remove = useMutation({
    mutationFn: (s: SessionOut) => must(api.DELETE("/api/sessions/{pk}", path(s.id))),
    onSuccess: (_, s) => {
      void again();
      say(`${s.name} is deleted`, { label: "Undo", run: () => restore.mutate(s.id) });
    },
    onError: (e) => say(e.message),
  });
  return { list, words, setWords, copy, remove, again };
}

export function Sessions() {
  const { list, words, setWords, copy, remove, again } = useSessions();
  const rows = list.data?.pages.flat() ?? [];
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<SessionOut | null>(null);
  return (
    <div className="min-h-screen">
      <header className="flex items-center justify-between border-b border-hair bg-panel px-5 py-2.5">
        <Brand />
        <AccountMenu />
      </header>
      <main className="mx-auto max-w-6xl p-6">
        <Top onDone={again} onNew={() => setMaking(true)} />
        {(words || rows.length >= A_PAGE) && <Search words={words} onWords={setWords} />}
        {list.error && <p role="alert">{list.error.message}</p>}
        {list.isSuccess && rows.length === 0 && <Nothing words={words} />}
        <LengthsProvider rows={rows}>
          <ul className="space-y-5">
            {rows.map((s) => (
              <OneSession
                key={s.id}
                session={s}
                onRename={() => setRenaming(s)}
                onCopy={() => copy.mutate(s.id)}
                onDelete={() => remove.mutate(s)}
              />
            ))}
          </ul>
        </LengthsProvider>
        {list.hasNextPage && (
          <button
            type="button"
            className="btn mx-auto mt-5 block"
            disabled={list.isFetchingNextPage}
            onClick={() => void list.fetchNextPage()}
          >
            Older sessions
          </button>
        )}
      </main>
      <NewSession open={making} onClose={() => setMaking(false)} />
      {renaming && <Rename session={renaming} onClose={() => setRenaming(null)} onDone={again} />}
    </div>
  );
}

function Search({ words, onWords }: { words: string; onWords: (v: string) => void }) {
  return (
    <label className="mb-4 flex items-center gap-2">
      <span className="text-soft">Search by name or place</span>
      <input
        type="search"
        className="field w-72"
        maxLength={120}
        value={words}
        onChange={(e) => onWords(e.target.value)}
      />
    </label>
  );
}

function Nothing({ words }: { words: string }) {
  return (
    <p className="rounded-card border border-hair bg-panel p-6">
      {words
        ? `No session has “${words}” in its name or place.`
        : "No sessions yet. A new session begins with a kit and a layout to change; a layout file made elsewhere can be read in as well."}
    </p>
  );
}

function Top({ onDone, onNew }: { onDone: () => void; onNew: () => void }) {
  const me = useMe();
  return (
    <div className="mb-5 flex flex-wrap items-center gap-3">
      <h1 className="mr-auto text-2xl">Sessions</h1>
      {me.studios.map((s) => (
        <Link key={s.id} className="btn" to={`/studios/${s.id}/locker`}>
          {me.studios.length > 1 ? `Locker of ${s.name}` : "Locker"}
        </Link>
      ))}
      <Upload onDone={onDone} />
      <button type="button" className="btn-main py-2" onClick={onNew}>
        New session
      </button>
    </div>
  );
}
