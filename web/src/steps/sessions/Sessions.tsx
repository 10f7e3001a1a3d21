/** The sessions of one's studios: a drawing and the verdicts of each layout. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Ellipsis } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { type ChangeEvent, type FormEvent, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, must } from "../../api/client";
import type { SessionOut, StartIn } from "../../api/types";
import { AccountMenu, ITEM, MENU } from "../../parts/AccountMenu";
import { Ask } from "../../parts/Ask";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { Sketch } from "../../parts/Sketch";
import { useToast } from "../../parts/toast";
import { VerdictCounts } from "../../parts/VerdictCounts";
import { KitChoice, StartChoice, useStarts } from "./starts";

const path = (pk: number) => ({ params: { path: { pk } } });

export function Sessions() {
  const queries = useQueryClient();
  const say = useToast();
  const me = useMe();
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<SessionOut | null>(null);
  const list = useQuery({ queryKey: ["sessions"], queryFn: () => must(api.GET("/api/sessions")) });
  const again = () => queries.invalidateQueries({ queryKey: ["sessions"] });
  const copy = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/copy", path(pk))),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const restore = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/restore", path(pk))),
    onSuccess: again,
  });
  const remove = useMutation({
    mutationFn: (s: SessionOut) => must(api.DELETE("/api/sessions/{pk}", path(s.id))),
    onSuccess: (_, s) => {
      void again();
      say(`${s.name} is deleted`, { label: "Undo", run: () => restore.mutate(s.id) });
    },
    onError: (e) => say(e.message),
  });
  return (
    <div className="min-h-screen">
      <header className="flex items-center justify-between border-b border-hair bg-panel px-5 py-2.5">
        <Brand />
        <AccountMenu />
      </header>
      <main className="mx-auto max-w-6xl p-6">
        <div className="mb-5 flex flex-wrap items-center gap-3">
          <h1 className="mr-auto text-2xl">Sessions</h1>
          {me.studios.map((s) => (
            <Link key={s.id} className="btn" to={`/studios/${s.id}/locker`}>
              {me.studios.length > 1 ? `Locker of ${s.name}` : "Locker"}
            </Link>
          ))}
          <Upload onDone={again} />
          <button type="button" className="btn-main py-2" onClick={() => setMaking(true)}>
            New session
          </button>
        </div>
        {list.error && <p role="alert">{list.error.message}</p>}
        {list.data?.length === 0 && (
          <p className="rounded-card border border-hair bg-panel p-6">
            No sessions yet. A new session begins with a kit and a layout to change; a layout file
            made elsewhere can be read in as well.
          </p>
        )}
        <ul className="space-y-5">
          {list.data?.map((s) => (
            <li
              key={s.id}
              className="rounded-card border border-hair bg-panel p-4"
              data-session={s.name}
            >
              <div className="flex items-baseline gap-3">
                <h2 className="text-lg">{s.name}</h2>
                <span className="text-soft">
                  {s.place}
                  {s.place && " · "}
                  {s.studio}
                </span>
                <SessionMenu
                  session={s}
                  onRename={() => setRenaming(s)}
                  onCopy={() => copy.mutate(s.id)}
                  onDelete={() => remove.mutate(s)}
                />
              </div>
              <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-3">
                {s.layouts.map((l) => (
                  <li key={l.id}>
                    <Link
                      to={`/layouts/${l.id}/place`}
                      className="block rounded-card border border-hair bg-card p-3 hover:border-soft"
                    >
                      <Sketch summary={l.summary} name={l.name} />
                      <p className="my-1.5 font-semibold">
                        {l.name}{" "}
                        <span className="font-normal text-soft">{l.summary.mics.length} mics</span>
                      </p>
                      <VerdictCounts counts={l.summary.counts} />
                    </Link>
                  </li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
      </main>
      <NewSession open={making} onClose={() => setMaking(false)} />
      {renaming && <Rename session={renaming} onClose={() => setRenaming(null)} onDone={again} />}
    </div>
  );
}

function SessionMenu(props: {
  session: SessionOut;
  onRename: () => void;
  onCopy: () => void;
  onDelete: () => void;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="btn ml-auto px-2 py-1"
        aria-label={`More for ${props.session.name}`}
      >
        <Ellipsis size={18} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={4}>
          <DropdownMenu.Item className={ITEM} onSelect={props.onRename}>
            Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={props.onCopy}>
            Copy
          </DropdownMenu.Item>
          <DropdownMenu.Item className={ITEM} onSelect={props.onDelete}>
            Delete
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function NewSession({ open, onClose }: { open: boolean; onClose: () => void }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const starts = useStarts(open);
  const make = useMutation({
    mutationFn: (body: StartIn) => must(api.POST("/api/sessions", { body })),
    onSuccess: (s) => {
      void queries.invalidateQueries({ queryKey: ["sessions"] });
      const made = s.layouts[0];
      go(`/layouts/${made?.id}/${made?.summary.mics.length === 0 ? "brief" : "place"}`);
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const room = String(form.get("room"));
    make.mutate({
      name: String(form.get("name")),
      place: String(form.get("place")),
      kit: String(form.get("kit")),
      start: String(form.get("start")) as StartIn["start"],
      room_id: room ? Number(room) : null,
    });
  };
  const all = starts.data;
  return (
    <Ask open={open} onClose={onClose} title="New session">
      <form onSubmit={submit} className="space-y-3">
        <label className="block">
          <span className="text-soft">Name</span>
          <input name="name" className="field w-full" required maxLength={80} />
        </label>
        <label className="block">
          <span className="text-soft">Place and day</span>
          <input name="place" className="field w-full" maxLength={120} />
        </label>
        <KitChoice starts={all} />
        <label className="block">
          <span className="text-soft">Room</span>
          <select name="room" className="field w-full">
            <option value="">Not drawn</option>
            {all?.rooms.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        </label>
        <StartChoice starts={all} />
        {make.error && (
          <p role="alert" className="text-hollow">
            {make.error.message}
          </p>
        )}
        <button type="submit" className="btn-main w-full" disabled={make.isPending || !all}>
          Make it
        </button>
      </form>
    </Ask>
  );
}

function Rename(props: { session: SessionOut; onClose: () => void; onDone: () => void }) {
  const { session, onClose, onDone } = props;
  const save = useMutation({
    mutationFn: (body: { name: string; place: string }) =>
      must(api.PATCH("/api/sessions/{pk}", { ...path(session.id), body })),
    onSuccess: () => {
      onDone();
      onClose();
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    save.mutate({ name: String(form.get("name")), place: String(form.get("place")) });
  };
  return (
    <Ask open onClose={onClose} title={`Rename ${session.name}`}>
      <form onSubmit={submit} className="space-y-3">
        <label className="block">
          <span className="text-soft">Name</span>
          <input
            name="name"
            className="field w-full"
            required
            maxLength={80}
            defaultValue={session.name}
          />
        </label>
        <label className="block">
          <span className="text-soft">Place and day</span>
          <input
            name="place"
            className="field w-full"
            maxLength={120}
            defaultValue={session.place}
          />
        </label>
        {save.error && <p role="alert">{save.error.message}</p>}
        <button type="submit" className="btn-main w-full">
          Rename
        </button>
      </form>
    </Ask>
  );
}

/** A layout file made elsewhere becomes a session; a bad one says where and why. */
function Upload({ onDone }: { onDone: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const say = useToast();
  const [trouble, setTrouble] = useState("");
  const send = useMutation({
    mutationFn: (file: File) =>
      must(
        api.POST("/api/sessions/upload", {
          body: { file: file as unknown as string },
          bodySerializer: () => {
            const form = new FormData();
            form.append("file", file);
            return form;
          },
        }),
      ),
    onSuccess: (s) => {
      onDone();
      say(`${s.name} is read in as a new session`);
    },
    onError: (e) => setTrouble(e.message),
  });
  const pick = (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = "";
    setTrouble("");
    if (file) send.mutate(file);
  };
  return (
    <>
      {trouble && (
        <p role="alert" className="max-w-xl text-hollow">
          The file was not read and nothing was changed. {trouble}
        </p>
      )}
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="hidden"
        onChange={pick}
        aria-label="Layout file"
      />
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        Read a layout file
      </button>
    </>
  );
}
