/** What a hand will ask about is told ahead, and to whom it is told is there by then. */
import { useEffect } from "react";
import { ready } from "../core/asker";
import { useEditorPart } from "./editing";

/** After the picture, which comes sooner so; seldom is a hand quicker, and then it is told at once. */
const READY_MS = 400;

/** For every step on which a hand asks as it moves. */
export function ReadyForHands() {
  const still = useEditorPart((s) => s.still);
  useEffect(() => {
    const soon = setTimeout(() => ready(still), READY_MS);
    return () => clearTimeout(soon);
  }, [still]);
  return null;
}
