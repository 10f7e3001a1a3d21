/** The editor's world: the server through the generated client. */
import { api, exactly, Refused } from "../api/client";
import type { Board, Conflict, LayoutOut } from "../api/types";
import type { Wire } from "./editor";

export const wire: Wire = {
  compute: (layout, focus) => exactly<Board>(api.POST("/api/compute", { body: { layout, focus } })),
  save: (id, version, doc, what) =>
    exactly<LayoutOut>(
      api.PUT("/api/layouts/{pk}", { params: { path: { pk: id } }, body: { version, doc, what } }),
    ),
  step: (id, version, way) => {
    const call = { params: { path: { pk: id } }, body: { version } };
    return exactly<LayoutOut>(
      way === "undo"
        ? api.POST("/api/layouts/{pk}/undo", call)
        : api.POST("/api/layouts/{pk}/redo", call),
    );
  },
  conflictOf: (error) =>
    error instanceof Refused && error.status === 409 ? (error.problem as Conflict) : null,
  isRefusal: (error) => error instanceof Refused,
};
