/** What a hand is told is laid on the layout as it stood: all that was not changed stays itself. */
import { expect, it, vi } from "vitest";
import type { Edit, Layout } from "../api/types";

const still = {
  name: "still",
  kit: { drums: [{ id: "kick" }, { id: "floor", batter_m: [1, 0, 0.5] }] },
  mics: [{ id: "KI" }, { id: "FT", aim: [0, 0, -1] }],
} as unknown as Layout;
const edit = { do: "hand" } as Edit;

/** The server answers so, to whoever asks plainly: there are no workers here. */
async function triedWith(answer: unknown): Promise<Layout> {
  const asked = vi.fn(async (path: string, call: unknown) => ({ path, call }));
  vi.resetModules();
  vi.doMock("../api/client", () => ({
    api: { POST: asked },
    csrfToken: () => "",
    exactly: async (call: Promise<unknown>) => {
      expect(await call).toEqual({
        path: "/api/edit/try",
        call: { body: { layout: still, edit } },
      });
      return answer;
    },
  }));
  return (await import("./handAsks")).tried(still, edit);
}

it("changes what a patch names, and leaves the rest the very same", async () => {
  const layout = await triedWith([
    { op: "replace", path: "/kit/drums/1/batter_m", value: [1.1, 0, 0.5] },
    { op: "replace", path: "/mics/1/aim", value: [0, 1, 0] },
  ]);
  expect(layout.kit.drums[1]?.batter_m).toEqual([1.1, 0, 0.5]);
  expect(layout.mics[1]).toEqual({ id: "FT", aim: [0, 1, 0] });
  expect([layout.kit.drums[0], layout.mics[0]]).toEqual([still.kit.drums[0], still.mics[0]]);
  expect(layout.kit.drums[0]).toBe(still.kit.drums[0]);
  expect(layout.mics[0]).toBe(still.mics[0]);
  expect(still.kit.drums[1]?.batter_m).toEqual([1, 0, 0.5]);
});

it("is the layout itself where nothing was changed", async () => {
  expect(await triedWith([])).toBe(still);
});
