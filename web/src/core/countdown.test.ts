import { expect, test } from "vitest";
import { minutesLeft } from "./countdown";

const at = (text: string) => Date.parse(`2026-05-02T${text}Z`);

test("minutes and seconds to the end, begun seconds counted, and nothing after it", () => {
  const ends = "2026-05-02T10:10:00Z";
  expect(minutesLeft(ends, at("10:00:00"))).toBe("10:00");
  expect(minutesLeft(ends, at("10:08:54.5"))).toBe("1:06");
  expect(minutesLeft(ends, at("10:11:00"))).toBe("0:00");
});
