import { describe, expect, it } from "vitest";
import { pressedOn } from "./pressed";

describe("whether something is pressed", () => {
  const page = new EventTarget() as Window;
  const pressed = pressedOn(page);
  const told = (name: string) => {
    page.dispatchEvent(new Event(name));
    return pressed.get();
  };

  it.each(["pointerup", "pointercancel", "blur"])("is so until %s", (end) => {
    expect([pressed.get(), told("pointerdown"), told(end)]).toEqual([false, true, false]);
  });
});
