/** Whether a finger or a button is down anywhere on the page. */
import { Shared } from "./shared";

type Page = Pick<Window, "addEventListener">;

/** A press that ends where the page hears nothing of it ends with the page's focus at the latest. */
export function pressedOn(page: Page): Shared<boolean> {
  const pressed = new Shared(false);
  page.addEventListener("pointerdown", () => pressed.set(true), true);
  for (const end of ["pointerup", "pointercancel", "blur"])
    page.addEventListener(end, () => pressed.set(false), true);
  return pressed;
}
