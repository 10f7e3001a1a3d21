/** Whether a finger or a button is down anywhere on the page. */
import { Shared } from "./shared";

type Page = Pick<Window, "addEventListener">;

/** Over a menu, a bar that scrolls or another window a press ends without a word: these tell of it. */
const ENDS = ["pointerup", "pointercancel", "contextmenu", "keydown", "blur"];

export function pressedOn(page: Page): Shared<boolean> {
  const pressed = new Shared(false);
  const end = () => pressed.set(false);
  page.addEventListener("pointerdown", () => pressed.set(true), true);
  for (const name of ENDS) page.addEventListener(name, end, true);
  page.addEventListener("pointermove", (e) => e.buttons === 0 && end(), true);
  return pressed;
}

/** Once nothing is down: for what nobody waits for. */
export const letGo = (pressed: Shared<boolean>): Promise<void> =>
  new Promise((go) => {
    if (!pressed.get()) return go();
    const leave = pressed.subscribe(() => {
      leave();
      go();
    });
  });
