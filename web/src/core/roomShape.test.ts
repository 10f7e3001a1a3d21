/** Floors: areas by the shoelace formula, and frames that lead back to where they came from. */
import { describe, expect, it } from "vitest";
import type { Room } from "../api/types";
import { goboCorners, outlineOf, toKit, toRoom } from "./roomShape";
import type { Point2 } from "./view";

const room = {
  width_m: 6.4,
  length_m: 8.2,
  kit_x_m: 3.1,
  kit_y_m: 2.6,
  kit_turn_rad: 0.7,
  notch: null,
} as unknown as Room;

function area(corners: Point2[]): number {
  return corners.reduce((sum, [x, y], i) => {
    const [u, v] = corners[(i + 1) % corners.length] as Point2;
    return sum + (x * v - u * y) / 2;
  }, 0);
}

describe("floors", () => {
  it("is a box without a corner cut away", () => {
    expect(area(outlineOf(room))).toBeCloseTo(6.4 * 8.2, 9);
  });

  it.each(["back left", "back right", "front left", "front right"] as const)(
    "goes round an L with its %s corner cut away",
    (corner) => {
      const ell = { ...room, notch: { corner, width_m: 2, length_m: 3 } };
      expect(area(outlineOf(ell))).toBeCloseTo(6.4 * 8.2 - 6, 9);
      expect(outlineOf(ell).length).toBe(6);
    },
  );

  it("leads from the room to the kit and back", () => {
    const [x, y] = toKit(room, 1.2, 5.4);
    const back = toRoom(room, x, y);
    expect(back[0]).toBeCloseTo(1.2, 9);
    expect(back[1]).toBeCloseTo(5.4, 9);
    expect(toKit(room, 3.1, 2.6)[0]).toBeCloseTo(0, 12);
  });

  it("turns a gobo about its middle", () => {
    const gobo = { x_m: 1, y_m: 4, width_m: 1.2, thickness_m: 0.1, turn_rad: Math.PI / 2 };
    const corners = goboCorners(gobo as Room["gobos"][number]);
    expect(Math.max(...corners.map(([, y]) => y))).toBeCloseTo(4.6, 9);
    expect(area(corners)).toBeCloseTo(0.12, 9);
  });
});
