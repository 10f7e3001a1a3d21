/** Locker: what the studio can put up. Every change is saved as it is made. */
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, exactly } from "../../api/client";
import type { LockerOut } from "../../api/types";
import { AccountMenu } from "../../parts/AccountMenu";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { Detail } from "./Detail";
import { Limits } from "./Limits";
import { ReadCsv } from "./ReadCsv";
import { KINDS, rowsOf } from "./rows";
import { Shelf } from "./Shelf";
import { useLocker } from "./useLocker";

export function Locker() {
  const studio = Number(useParams().studio);
  const held = useQuery({
    queryKey: ["locker", studio],
    queryFn: () =>
      exactly<LockerOut>(api.GET("/api/studios/{pk}/locker", { params: { path: { pk: studio } } })),
  });
  return (
    <div className="min-h-screen">
      <header className="flex items-center gap-4 border-b border-hair bg-panel px-5 py-2.5">
        <Brand />
        <Link to="/" className="text-[0.9rem] underline">
          Sessions
        </Link>
        <span className="ml-auto">
          <AccountMenu />
        </span>
      </header>
      {held.error && !held.data && (
        <main className="p-8" role="alert">
          <h1 className="text-xl">This locker cannot be opened</h1>
          <p>{held.error.message}</p>
        </main>
      )}
      {held.data && <Contents studio={studio} held={held.data} />}
    </div>
  );
}

function Contents({ studio, held }: { studio: number; held: LockerOut }) {
  const work = useLocker(studio, held);
  const { locker, chosen, choose, save } = work;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_320px] narrow:grid-cols-[minmax(0,1fr)]">
      <main className="space-y-5 p-6">
        <Top studio={studio} saving={save.isPending} />
        {save.error && (
          <p role="alert" className="text-hollow">
            Not taken: {save.error.message}
          </p>
        )}
        {KINDS.map((shelf) => (
          <Shelf
            key={shelf.kind}
            {...shelf}
            rows={rowsOf(locker, shelf.kind)}
            chosen={chosen?.kind === shelf.kind ? chosen.id : null}
            onChoose={(id) => choose({ kind: shelf.kind, id })}
            onAdd={() => work.add(shelf.kind)}
          />
        ))}
      </main>
      <aside
        aria-label="What is chosen"
        className={`min-h-[calc(100vh-53px)] border-l border-hair bg-panel p-4 narrow:min-h-0 narrow:border-t narrow:border-l-0 ${chosen ? OVER_THE_SHELVES : ""}`}
      >
        <Beside work={work} />
      </aside>
    </div>
  );
}

/** On a phone what was chosen comes up over the shelves it was chosen from. */
const OVER_THE_SHELVES =
  "narrow:sticky narrow:bottom-0 narrow:max-h-[60dvh] narrow:overflow-y-auto";

function Top({ studio, saving }: { studio: number; saving: boolean }) {
  const me = useMe();
  const name = me.studios.find((s) => s.id === studio)?.name ?? "";
  return (
    <div className="flex flex-wrap items-center gap-3">
      <h1 className="mr-auto text-2xl">
        Locker <span className="text-[1.05rem] font-normal text-soft">{name}</span>
      </h1>
      <span role="status" className="text-[0.85rem] font-semibold text-ring">
        {saving ? "Saving…" : "Saved"}
      </span>
      <ReadCsv studio={studio} />
      <a className="btn" href={`/api/studios/${studio}/locker.csv`} download>
        Take as CSV
      </a>
    </div>
  );
}

/** The chosen thing, or what a day allows. */
function Beside({ work }: { work: ReturnType<typeof useLocker> }) {
  const { locker, chosen, choose } = work;
  const row = chosen && rowsOf(locker, chosen.kind).find((r) => r.id === chosen.id);
  if (!row || !chosen) return <Limits locker={locker} onTake={(next) => work.save.mutate(next)} />;
  return (
    <>
      <button
        type="button"
        className="mb-3 text-[0.88rem] text-snare underline"
        onClick={() => choose(null)}
      >
        What a day allows
      </button>
      <Detail
        key={`${chosen.kind} ${row.id}`}
        kind={chosen.kind}
        row={row}
        onTake={(next) => work.put(chosen.kind, row.id, next)}
        onTakeOut={() => work.takeOut(chosen.kind, row)}
      />
    </>
  );
}
