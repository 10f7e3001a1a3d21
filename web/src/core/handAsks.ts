/** What a hand asks as it moves: what follows a mic, what an edit would do, what walls do here. */
import { immutableJSONPatch, type JSONPatchDocument } from "immutable-json-patch";
import { api, exactly } from "../api/client";
import type { Edit, Follows, Layout, Room, SpotHere } from "../api/types";
import { beside } from "./asker";
import type { Move } from "./following";

export function follow({ still, mic, focus, words }: Move): Promise<Follows> {
  const more = { mic: mic.id, position_m: mic.position_m, aim: mic.aim, focus, words };
  return beside({ path: "/api/follow", still, more, every: words }, () =>
    exactly<Follows>(api.POST("/api/follow", { body: { layout: still, ...more } })),
  );
}

/** The layout as an edit would make it: only what it changes is sent, all else stays as it is. */
export async function tried(still: Layout, edit: Edit): Promise<Layout> {
  const changes = await beside({ path: "/api/edit/try", still, more: { edit } }, () =>
    exactly<JSONPatchDocument>(api.POST("/api/edit/try", { body: { layout: still, edit } })),
  );
  return immutableJSONPatch(still, changes) as Layout;
}

/** What the walls do in this room where the kit stands. */
export function here(still: Layout, room: Room): Promise<SpotHere> {
  return beside({ path: "/api/room/here", still, more: { room } }, () =>
    exactly<SpotHere>(api.POST("/api/room/here", { body: { layout: still, room } })),
  );
}
