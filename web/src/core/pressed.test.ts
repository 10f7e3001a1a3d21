import { describe, expect, it } from "vitest";
import { letGo, pressedOn } from "./pressed";

describe("whether something is pressed", () => {
  const page = new EventTarget() as Window;
  const pressed = pressedOn(page);
  const told = (name: string, more = {}) => {
    page.dispatchEvent(Object.assign(new Event(name), more));
    return pressed.get();
  };

  it.each(["pointerup", "pointercancel", "contextmenu", "keydown", "blur"])(
    "is so until %s",
    (end) => {
      expect([pressed.get(), told("pointerdown"), told(end)]).toEqual([false, true, false]);
    },
  );

  it("stays so while that moves, and not once it is seen to move with nothing down", () => {
    expect([told("pointerdown"), told("pointermove", { buttons: 1 })]).toEqual([true, true]);
    expect(told("pointermove", { buttons: 0 })).toBe(false);
  });

  it("lets who waits go on once it is let go of, and holds nobody up before", async () => {
    const went: string[] = [];
    await letGo(pressed).then(() => went.push("free"));
    told("pointerdown");
    const waiting = letGo(pressed).then(() => went.push("let go"));
    await Promise.resolve();
    expect(went).toEqual(["free"]);
    told("pointerup");
    await waiting;
    expect(went).toEqual(["free", "let go"]);
  });
});
