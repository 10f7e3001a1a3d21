/** Another layout in a session, from a starting kit and a starting layout. */
import { useMutation } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { api, must } from "../../api/client";
import type { StartIn } from "../../api/types";
import { NameInput } from "./Fields";
import { KitChoice, StartChoice, useStarts } from "./starts";

interface Props {
  sessionId: number;
  onMade: (id: number) => void;
}

export function NewLayout({ sessionId, onMade }: Props) {
  const starts = useStarts();
  const make = useMutation({
    mutationFn: (body: { name: string; kit: string; start: StartIn["start"] }) =>
      must(api.POST("/api/sessions/{pk}/layouts", { params: { path: { pk: sessionId } }, body })),
    onSuccess: (made) => onMade(made.id),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name));
    make.mutate({
      name: text("name"),
      kit: text("kit"),
      start: text("start") as StartIn["start"],
    });
  };
  return (
    <form onSubmit={submit} className="space-y-3">
      <NameInput />
      <KitChoice starts={starts.data} />
      <StartChoice starts={starts.data} />
      {make.error && (
        <p role="alert" className="text-hollow">
          {make.error.message}
        </p>
      )}
      <button type="submit" className="btn-main w-full" disabled={make.isPending || !starts.data}>
        Make it
      </button>
    </form>
  );
}
