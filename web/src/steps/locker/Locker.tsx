/** Locker: what the studio can put up. Every change is saved as it is made. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type ChangeEvent, useRef, useState } from "react";
import { Link, useParams } from "react-router";
import { api, exactly, must } from "../../api/client";
import type { Locker as LockerDoc, LockerOut, LockerRead } from "../../api/types";
import { AccountMenu } from "../../parts/AccountMenu";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { Detail } from "./Detail";
import { KINDS, type Kind, newRow, type Row, rowsOf, summaryOf } from "./rows";

export function Locker() {
  const studio = Number(useParams().studio);
  const me = useMe();
  const name = me.studios.find((s) => s.id === studio)?.name ?? "";
  const found = useQuery({
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
      {found.error && (
        <main className="p-8" role="alert">
          <h1 className="text-xl">This locker cannot be opened</h1>
          <p>{found.error.message}</p>
        </main>
      )}
      {found.data && <Contents studio={studio} name={name} held={found.data} />}
    </div>
  );
}

interface Chosen {
  kind: Kind;
  id: string;
}

function Contents({ studio, name, held }: { studio: number; name: string; held: LockerOut }) {
  const queries = useQueryClient();
  const say = useToast();
  const [chosen, choose] = useState<Chosen | null>(null);
  const path = { params: { path: { pk: studio } } };
  const { locker } = held;
  const save = useMutation({
    mutationFn: (next: LockerDoc) =>
      exactly<LockerOut>(
        api.PUT("/api/studios/{pk}/locker", {
          ...path,
          body: { version: held.version, locker: next },
        }),
      ),
    onSuccess: (fresh) => queries.setQueryData(["locker", studio], fresh),
    onError: (e) => {
      say(e.message);
      void queries.invalidateQueries({ queryKey: ["locker", studio] });
    },
  });
  const put = (kind: Kind, rows: Row[]) => save.mutate({ ...locker, [kind]: rows } as LockerDoc);
  const add = (kind: Kind) => {
    const row = newRow(kind, locker);
    put(kind, [...rowsOf(locker, kind), row]);
    choose({ kind, id: row.id });
  };
  const row = chosen && rowsOf(locker, chosen.kind).find((r) => r.id === chosen.id);
  const takeOut = (kind: Kind, gone: Row) => {
    const before = locker;
    const rows = rowsOf(locker, kind).filter((r) => r.id !== gone.id);
    save.mutate({ ...locker, [kind]: rows } as LockerDoc, {
      onSuccess: (fresh) =>
        say(`${gone.name} is taken out`, {
          label: "Undo",
          run: () =>
            void exactly<LockerOut>(
              api.PUT("/api/studios/{pk}/locker", {
                ...path,
                body: { version: fresh.version, locker: before },
              }),
            )
              .then((back) => queries.setQueryData(["locker", studio], back))
              .catch((e: Error) => say(e.message)),
        }),
    });
    choose(null);
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_320px]">
      <main className="space-y-5 p-6">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="mr-auto text-2xl">
            Locker <span className="text-[1.05rem] font-normal text-soft">{name}</span>
          </h1>
          <span role="status" className="text-[0.85rem] font-semibold text-ring">
            {save.isPending ? "Saving…" : "Saved"}
          </span>
          <ReadCsv studio={studio} />
          <a className="btn" href={`/api/studios/${studio}/locker.csv`} download>
            Take as CSV
          </a>
        </div>
        {save.error && (
          <p role="alert" className="text-hollow">
            Not taken: {save.error.message}
          </p>
        )}
        {KINDS.map(({ kind, title, heads }) => (
          <section key={kind} aria-labelledby={`head-${kind}`}>
            <div className="flex items-center gap-3">
              <h2 id={`head-${kind}`} className="text-lg">
                {title}
              </h2>
              <button
                type="button"
                className="btn px-2 py-0.5 text-[0.82rem]"
                onClick={() => add(kind)}
              >
                Add to {title.toLowerCase()}
              </button>
            </div>
            {rowsOf(locker, kind).length === 0 ? (
              <p className="text-[0.9rem] text-soft">Nothing here yet.</p>
            ) : (
              <table className="mt-1 w-full text-[0.88rem]">
                <thead className="text-left text-soft">
                  <tr>
                    {heads.map((h) => (
                      <th key={h} scope="col" className="pr-3 font-normal">
                        {h}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {rowsOf(locker, kind).map((r) => (
                    <tr
                      key={r.id}
                      data-row={r.id}
                      className={`border-t border-hair ${chosen?.kind === kind && chosen.id === r.id ? "bg-tint" : ""}`}
                    >
                      <th scope="row" className="py-0.5 text-left">
                        <button
                          type="button"
                          className="font-semibold underline"
                          onClick={() => choose({ kind, id: r.id })}
                        >
                          {r.name}
                        </button>
                      </th>
                      <td className="num font-semibold">{r.count}</td>
                      <Cells kind={kind} row={r} />
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </section>
        ))}
      </main>
      <aside
        aria-label="What is chosen"
        className="min-h-[calc(100vh-53px)] border-l border-hair bg-panel p-4"
      >
        {row && chosen ? (
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
              onTake={(next) => {
                put(
                  chosen.kind,
                  rowsOf(locker, chosen.kind).map((r) => (r.id === row.id ? next : r)),
                );
                choose({ kind: chosen.kind, id: next.id });
              }}
              onTakeOut={() => takeOut(chosen.kind, row)}
            />
          </>
        ) : (
          <Limits locker={locker} onTake={(next) => save.mutate(next)} />
        )}
      </aside>
    </div>
  );
}

function Cells({ kind, row }: { kind: Kind; row: Row }) {
  const me = useMe();
  return summaryOf(kind, row, me).map((text, i) => (
    <td key={i} className="pr-3">
      {text}
    </td>
  ));
}

/** A CSV file put in: what could not be read is named row by row, the rest is kept. */
function ReadCsv({ studio }: { studio: number }) {
  const input = useRef<HTMLInputElement>(null);
  const queries = useQueryClient();
  const say = useToast();
  const [faults, setFaults] = useState<LockerRead["faults"]>([]);
  const send = useMutation({
    mutationFn: (file: File) =>
      must(
        api.POST("/api/studios/{pk}/locker.csv", {
          params: { path: { pk: studio } },
          body: { file: file as unknown as string },
          bodySerializer: () => {
            const form = new FormData();
            form.append("file", file);
            return form;
          },
        }) as Promise<{ data?: LockerRead; error?: unknown; response: Response }>,
      ),
    onSuccess: (read) => {
      queries.setQueryData(["locker", studio], { version: read.version, locker: read.locker });
      setFaults(read.faults);
      if (!read.faults.length) say("Every row is read in");
    },
    onError: (e) => {
      setFaults([]);
      say(`The file was not read and nothing was changed: ${e.message}`);
    },
  });
  const pick = (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = "";
    if (file) send.mutate(file);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        className="hidden"
        onChange={pick}
        aria-label="Locker as CSV"
      />
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        Read a CSV
      </button>
      {faults.length > 0 && (
        <div role="alert" className="w-full rounded-card border border-hollow p-3 text-[0.9rem]">
          <p className="font-semibold text-hollow">
            {faults.length === 1 ? "One row was" : `${faults.length} rows were`} left out; all
            others are read in.
          </p>
          <ul>
            {faults.map((f) => (
              <li key={`${f.line} ${f.column}`}>
                <span className="num">
                  line {f.line}, {f.column}:
                </span>{" "}
                {f.words}
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

function Limits({ locker, onTake }: { locker: LockerDoc; onTake: (next: LockerDoc) => void }) {
  const number = (text: FormDataEntryValue | null) => {
    const plain = String(text ?? "").trim();
    return plain === "" ? null : Number(plain);
  };
  return (
    <form
      className="space-y-3"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        onTake({
          ...locker,
          minutes: number(form.get("minutes")),
          budget: number(form.get("budget")),
          minutes_per_mic: number(form.get("per")) ?? 6,
        });
      }}
    >
      <h2 className="text-[1.05rem]">What a day allows</h2>
      <p className="text-[0.88rem] text-soft">
        If wanted: a layout then says when it takes longer or costs more. Empty is no limit.
      </p>
      {(
        [
          ["minutes", "Minutes to set up", locker.minutes, "1"],
          ["per", "Minutes a mic takes", locker.minutes_per_mic, "0.5"],
          ["budget", "Budget for a day", locker.budget, "0.01"],
        ] as const
      ).map(([field, label, value, step]) => (
        <label key={field} className="block">
          <span className="text-[0.8rem] text-soft">{label}</span>
          <input
            name={field}
            type="number"
            min="0"
            step={step}
            className="field num w-full"
            defaultValue={value ?? ""}
          />
        </label>
      ))}
      <button type="submit" className="btn w-full">
        Keep these
      </button>
      <p className="text-[0.85rem] text-soft">
        Choose a row to change it. Booms over heads want a counterweight and a tight clutch; cables
        are taped down and exits stay clear.
      </p>
    </form>
  );
}
