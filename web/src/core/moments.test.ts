import { expect, it } from "vitest";
import { when } from "./moments";

it("tells the day only where it is another", () => {
  const at = new Date(2026, 2, 1, 9, 5);
  expect(when(at.toISOString(), new Date(2026, 2, 1, 23, 0))).toBe("09:05");
  expect(when(at.toISOString(), new Date(2026, 2, 2, 0, 1))).toMatch(/2026.*09:05$/);
});
