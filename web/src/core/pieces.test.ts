import { expect, it } from "vitest";
import { Pieces } from "./pieces";

function store(most: number) {
  const asked: string[] = [];
  let bad = false;
  const pieces = new Pieces(
    (key) => {
      asked.push(key);
      return bad ? Promise.reject(new Error("away")) : Promise.resolve(key);
    },
    (key) => key.length,
    most,
  );
  return { asked, pieces, fail: (on: boolean) => (bad = on) };
}

it("asks once, and lets the least used go when there is too much", async () => {
  const { asked, pieces } = store(5);
  for (const key of ["aa", "bb", "aa", "cc", "aa", "bb"]) await pieces.get(key);
  expect(asked).toEqual(["aa", "bb", "cc", "bb"]);
});

it("asks again for what did not come", async () => {
  const { asked, pieces, fail } = store(9);
  fail(true);
  await expect(pieces.get("a")).rejects.toThrow("away");
  fail(false);
  expect(await pieces.get("a")).toBe("a");
  expect(asked).toEqual(["a", "a"]);
});

it("keeps a single piece that is larger than all it may keep", async () => {
  const { asked, pieces } = store(1);
  await pieces.get("large");
  await pieces.get("large");
  expect(asked).toEqual(["large"]);
});
