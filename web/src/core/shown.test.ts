/** A layout as it stands in the place of its plan: what goes through to the plan, and what not. */
import { beforeEach, expect, test } from "vitest";
import type { AsItStands, Layout, LayoutOut } from "../api/types";
import { AT_THE_STAND, MEANWHILE, ontoPlan, plain, Shown } from "./shown";
import type { Wire } from "./world";

const mic = (id: string, x: number, gain = 0) => ({ id, position_m: [x, 0, 1], gain });
const layout = (mics: object[], more = {}) =>
  ({
    name: "B",
    mics,
    kit: { drums: ["snare"] },
    stereo_pairs: [],
    channels: [],
    ...more,
  }) as unknown as Layout;
const PLAN = layout([mic("OL", 0), mic("OR", 1)]);
const stood = { readings: [], setback_m: [0, 0] };
const STANDS = layout([mic("OL", 0), mic("OR", 1.06)], { stood }) as AsItStands;

test("what is switched goes to the plan, where everything stays where it was planned", () => {
  const louder = layout([mic("OL", 0), mic("OR", 1.06, 3)], { stood });
  expect(ontoPlan(PLAN, STANDS, louder)).toEqual(layout([mic("OL", 0), mic("OR", 1, 3)]));
});

test("what is moved, mic or kit, does not go to the plan", () => {
  expect(ontoPlan(PLAN, STANDS, layout([mic("OL", 0.01), mic("OR", 1.06)]))).toBeNull();
  const kit = { kit: { drums: ["snare", "rack"] } };
  expect(ontoPlan(PLAN, STANDS, { ...STANDS, ...kit } as unknown as Layout)).toBeNull();
});

test("one under another name keeps its planned place, a new one its own, one that goes is gone", () => {
  const mics = [mic("OL", 0), mic("XR", 1.06), mic("RM", 4)];
  expect(ontoPlan(PLAN, STANDS, layout(mics))?.mics).toEqual([
    mic("OL", 0),
    mic("XR", 1),
    mic("RM", 4),
  ]);
  expect(ontoPlan(PLAN, STANDS, layout([mic("OL", 0)]))?.mics).toEqual([mic("OL", 0)]);
});

test("what was measured is not kept", () => {
  expect(plain(STANDS)).not.toHaveProperty("stood");
  expect(plain(PLAN)).toEqual(PLAN);
});

let plan = PLAN;
let said: string[] = [];
const asked: Layout[] = [];
const wire = {
  compute: async (doc: Layout) => {
    asked.push(doc);
    return {};
  },
  save: () => Promise.reject(new Error("nothing is saved from here")),
} as unknown as Wire;

function shown(): Shown {
  const out = { id: 1, version: 3, doc: PLAN, can_undo: true } as LayoutOut;
  return new Shown(out, STANDS, wire, {
    now: () => plan,
    commit: (doc, what) => {
      plan = doc;
      said.push(what);
    },
    refuse: (why) => said.push(why),
  });
}

beforeEach(() => {
  plan = PLAN;
  said = [];
});

test("one switch after the other goes through, each seen at once with what was measured", () => {
  const view = shown();
  expect(view.snapshot().out.can_undo).toBe(false);
  view.commit(layout([mic("OL", 0), mic("OR", 1.06, 3)]), "one");
  view.commitSoon(layout([mic("OL", 0, 2), mic("OR", 1.06, 3)]), "two");
  expect(said).toEqual(["one", "two"]);
  expect(plan).toEqual(layout([mic("OL", 0, 2), mic("OR", 1, 3)]));
  expect(view.snapshot().still).toEqual(layout([mic("OL", 0, 2), mic("OR", 1.06, 3)], { stood }));
  expect(asked.at(-1)).toHaveProperty("stood");
  expect(view.snapshot().saved).toBe("saved");
});

test("a mic is not moved here, neither under a hand nor when it is let go of", () => {
  const view = shown();
  view.move();
  const moved = layout([mic("OL", 0.2), mic("OR", 1.06)]);
  view.preview(moved);
  expect(view.snapshot().doc).toEqual(STANDS);
  view.commit(moved, "moved");
  expect(said).toEqual([AT_THE_STAND]);
  expect(view.snapshot().still).toEqual(STANDS);
});

test("where the plan was changed meanwhile nothing goes over it, until it stands anew", () => {
  const view = shown();
  plan = layout([mic("OL", 0, 9), mic("OR", 1)]);
  view.commit(layout([mic("OL", 0), mic("OR", 1.06, 3)]), "late");
  expect(said).toEqual([MEANWHILE]);
  const anew = layout([mic("OL", 0, 9), mic("OR", 1.06)], { stood }) as AsItStands;
  view.stand(anew, plan);
  view.commit(layout([mic("OL", 0, 9), mic("OR", 1.06, 3)]), "now");
  expect(said).toEqual([MEANWHILE, "now"]);
});
