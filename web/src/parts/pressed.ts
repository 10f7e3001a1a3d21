/** Whether somebody has hold of something on this page. */
import { pressedOn } from "../core/pressed";

export const pressed = pressedOn(window);
