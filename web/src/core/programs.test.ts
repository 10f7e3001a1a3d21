import { describe, expect, it } from "vitest";
import type { Against, TakeHeard } from "../api/types";
import { programsOf, programsOfBoth } from "./programs";

const RATE = 1000;
const take: TakeHeard = {
  ...{ rate_hz: RATE, samples: 9000, group: 8, tracks: [], first: 3000 },
  loops: [
    {
      ...{ source: "kick", name: "Kick", level_db: [] },
      spans: [
        [2900, 500],
        [4000, 600],
      ],
    },
  ],
};

describe("what there is to play", () => {
  it("is each drum in a loop, and all from a second before the first stroke", () => {
    const [kick, whole] = programsOf(take);
    expect(kick).toMatchObject({ what: "kick", loop: true });
    expect(kick?.parts).toEqual([[{ begin: 2900, count: 500 }], [{ begin: 4000, count: 600 }]]);
    expect(whole).toMatchObject({ loop: false });
    expect(whole?.parts).toEqual([[{ begin: 2000, count: 4000 }], [{ begin: 6000, count: 3000 }]]);
    expect(programsOf({ ...take, first: 400 }).at(-1)?.parts[0]?.[0]?.begin).toBe(0);
    expect(programsOf({ ...take, first: null }).at(-1)?.parts[0]?.[0]?.begin).toBe(0);
  });

  it("is of two takes the same moment of each, in its own samples", () => {
    const against: Against = {
      loops: [
        { source: "kick", name: "Kick", first: [[10, 500]], second: [[70, 1000]], apart_db: 1.2 },
      ],
      whole: [
        [2000, 5000],
        [100, 10_000],
      ],
    };
    const [kick, whole] = programsOfBoth(against, [RATE, 2 * RATE]);
    expect(kick?.apart_db).toBe(1.2);
    expect(kick?.parts).toEqual([
      [
        { begin: 10, count: 500 },
        { begin: 70, count: 1000 },
      ],
    ]);
    expect(whole?.parts).toEqual([
      [
        { begin: 2000, count: 4000 },
        { begin: 100, count: 8000 },
      ],
      [
        { begin: 6000, count: 1000 },
        { begin: 8100, count: 2000 },
      ],
    ]);
    expect(programsOfBoth({ ...against, whole: null }, [1, 1])).toHaveLength(1);
  });
});
