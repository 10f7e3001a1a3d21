/** Another name for a session, or another place. */
import { useMutation } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { api, must } from "../../api/client";
import type { SessionOut } from "../../api/types";
import { Ask } from "../../parts/Ask";
import { NamePlace } from "./Fields";

interface Props {
  session: SessionOut;
  onClose: () => void;
  onDone: () => void;
}

export function Rename({ session, onClose, onDone }: Props) {
  const save = useMutation({
    mutationFn: (body: { name: string; place: string }) =>
      must(api.PATCH("/api/sessions/{pk}", { params: { path: { pk: session.id } }, body })),
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
        <NamePlace name={session.name} place={session.place} />
        {save.error && <p role="alert">{save.error.message}</p>}
        <button type="submit" className="btn-main w-full">
          Rename
        </button>
      </form>
    </Ask>
  );
}
