import { describe, expect, it } from "vitest";
import { pressedOn } from "./pressed";

describe("whether something is pressed", () => {
  const page = new EventTarget() as Window;
  const pressed = pressedOn(page);
  const after = (name: string) => {
    page.dispatchEvent(new Event(name));
    return pressed.get();
  };

  it.each(["pointerup", "pointercancel", "blur"])("is so until %s", (end) => {
    expect([pressed.get(), after("pointerdown"), after(end)]).toEqual([false, true, false]);
  });
});
