import { expect, it } from "vitest";
import { type Draft, giveBack, keepDraft, readDraft } from "./lineDraft";

function store() {
  const kept = new Map<string, string>();
  return {
    kept,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  };
}

const DRAFT: Draft = { song: "Low Water", words: "fuller", verdict: "no" };

it("keeps what was begun for each layout until it is written down", () => {
  const s = store();
  keepDraft(s, 2, DRAFT);
  expect(readDraft(s, 2)).toEqual(DRAFT);
  expect(readDraft(s, 3)).toBeNull();
  keepDraft(s, 2, null);
  expect(readDraft(s, 2)).toBeNull();
  expect(s.kept.size).toBe(0);
});

it.each(["{", "null", "[]", '{"song":"a"}', '{"song":"a","words":"b","verdict":"so so"}'])(
  "takes %s for no draft",
  (text) => {
    const s = store();
    keepDraft(s, 2, DRAFT);
    for (const key of s.kept.keys()) s.kept.set(key, text);
    expect(readDraft(s, 2)).toBeNull();
  },
);

it("keeps a take that was chosen, or none, and no other thing for one", () => {
  const s = store();
  for (const take of [7, null]) {
    keepDraft(s, 2, { ...DRAFT, take });
    expect(readDraft(s, 2)).toEqual({ ...DRAFT, take });
  }
  keepDraft(s, 2, { ...DRAFT, take: "7" as never });
  expect(readDraft(s, 2)).toEqual(DRAFT);
});

it("does without a store that is full or none", () => {
  const full = () => {
    throw new Error("full");
  };
  keepDraft({ setItem: full, removeItem: full }, 2, DRAFT);
  expect(readDraft({ getItem: full }, 2)).toBeNull();
});

it("gives back a line that was refused, before what was begun since", () => {
  const s = store();
  const refused = { ...DRAFT, layout: 2, key: "k", doc: {} };
  giveBack(s, refused);
  expect(readDraft(s, 2)).toEqual(DRAFT);
  keepDraft(s, 2, { song: "Rope Walk", words: "and dry", verdict: "works" });
  giveBack(s, refused);
  expect(readDraft(s, 2)).toEqual({ ...DRAFT, words: "fuller\nand dry" });
});
