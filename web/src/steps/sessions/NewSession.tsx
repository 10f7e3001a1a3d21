/** A new session: its name, a kit, a room if one is drawn, and a layout to begin with. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { useNavigate } from "react-router";
import { api, must } from "../../api/client";
import type { StartIn, Starts } from "../../api/types";
import { Ask } from "../../parts/Ask";
import { FormPick } from "../../parts/fields/Pick";
import { NamePlace } from "./Fields";
import { KitChoice, StartChoice, useStarts } from "./starts";

function startOf(form: FormData): StartIn {
  const text = (name: string) => String(form.get(name) ?? "");
  return {
    name: text("name"),
    place: text("place"),
    kit: text("kit"),
    start: text("start") as StartIn["start"],
    room_id: text("room") ? Number(text("room")) : null,
  };
}

export function NewSession({ open, onClose }: { open: boolean; onClose: () => void }) {
  const go = useNavigate();
  const queries = useQueryClient();
  const starts = useStarts(open).data;
  const make = useMutation({
    mutationFn: (body: StartIn) => must(api.POST("/api/sessions", { body })),
    onSuccess: (s) => {
      void queries.invalidateQueries({ queryKey: ["sessions"] });
      const made = s.layouts[0];
      go(`/layouts/${made?.id}/${made?.summary?.mics.length === 0 ? "brief" : "place"}`);
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    make.mutate(startOf(new FormData(e.currentTarget)));
  };
  return (
    <Ask open={open} onClose={onClose} title="New session">
      <form onSubmit={submit} className="space-y-3">
        <NamePlace />
        <KitChoice starts={starts} />
        <RoomChoice starts={starts} />
        <StartChoice starts={starts} />
        {make.error && (
          <p role="alert" className="text-hollow">
            {make.error.message}
          </p>
        )}
        <button type="submit" className="btn-main w-full" disabled={make.isPending || !starts}>
          Make it
        </button>
      </form>
    </Ask>
  );
}

function RoomChoice({ starts }: { starts: Starts | undefined }) {
  const rooms = starts?.rooms ?? [];
  return (
    <FormPick
      label="Room"
      name="room"
      start=""
      options={["", ...rooms.map((r) => String(r.id))]}
      names={{ "": "Not drawn", ...Object.fromEntries(rooms.map((r) => [String(r.id), r.name])) }}
    />
  );
}
