/** Where one is signed in, and signing one of them out. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import type { Device } from "../../api/types";
import { dayAndHour } from "../../core/moments";

const KEY = ["devices"];

export function DevicesSection() {
  const found = useQuery({
    queryKey: KEY,
    queryFn: () => must<Device[]>(api.GET("/api/account/devices")),
    refetchOnMount: "always",
  });
  return (
    <section>
      <h2 className="text-lg">Devices</h2>
      <p className="max-w-md text-[0.9rem] text-soft">
        Where you are signed in. A device that is signed out keeps what it has not sent, until you
        sign in there again.
      </p>
      {found.error && <p role="alert">{found.error.message}</p>}
      <ul className="mt-2 max-w-md divide-y divide-hair" aria-label="Devices">
        {found.data?.map((d) => (
          <Row key={d.id} device={d} />
        ))}
      </ul>
    </section>
  );
}

function Row({ device }: { device: Device }) {
  const queries = useQueryClient();
  const end = useMutation({
    mutationFn: () =>
      must(api.DELETE("/api/account/devices/{pk}", { params: { path: { pk: device.id } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: KEY }),
  });
  const name = device.kind === "phone" ? "Phone" : "Computer";
  return (
    <li className="flex items-center justify-between gap-3 py-2">
      <span>
        <b>{name}</b> {device.by_link && "by a link, "}
        {device.here ? "this one" : `last here ${dayAndHour(device.seen_at)}`}
        <br />
        <span className="text-[0.85rem] text-soft">signed in {dayAndHour(device.made_at)}</span>
        {end.error && <span role="alert">{end.error.message}</span>}
      </span>
      {!device.here && (
        <button
          type="button"
          className="btn"
          disabled={end.isPending}
          aria-label={`Sign out ${name}, signed in ${dayAndHour(device.made_at)}`}
          onClick={() => end.mutate()}
        >
          Sign out
        </button>
      )}
    </li>
  );
}
