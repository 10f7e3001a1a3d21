/** The editor's world: the server through the generated client. */
import { api, conflictOf, exactly, fateOf } from "../api/client";
import type { Board, LayoutOut } from "../api/types";
import { follow } from "./handAsks";
import type { Wire } from "./world";

/** A page of something on the way can say 200 as well: an answer without a version is none. */
function whole(out: LayoutOut | undefined): LayoutOut {
  if (typeof out?.version !== "number") throw new Error("not an answer of this server");
  return out;
}

export const wire: Wire = {
  compute: (layout, focus) => exactly<Board>(api.POST("/api/compute", { body: { layout, focus } })),
  follow,
  save: async (id, { version, doc, what, key }) => {
    const body = { version, doc, what, key };
    return whole(
      await exactly<LayoutOut>(
        api.PUT("/api/layouts/{pk}", { params: { path: { pk: id } }, body }),
      ),
    );
  },
  step: async (id, version, way, key) => {
    const call = { params: { path: { pk: id } }, body: { version, key } };
    return whole(
      await exactly<LayoutOut>(
        way === "undo"
          ? api.POST("/api/layouts/{pk}/undo", call)
          : api.POST("/api/layouts/{pk}/redo", call),
      ),
    );
  },
  fateOf,
  conflictOf,
};
