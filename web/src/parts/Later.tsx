/** What is not looked at first comes right after the first picture, so that this one comes sooner. */
import { type ReactNode, startTransition, useEffect, useState } from "react";
import { frames } from "../core/frames";
import { useEditorPart } from "./editing";

/** For what has a place of its own whatever is in it: nothing may move when it comes. */
export function Later({ children }: { children: ReactNode }) {
  const [now, setNow] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => startTransition(() => setNow(true)));
    return () => clearTimeout(soon);
  }, []);
  return now ? children : null;
}

/**
 * The same for what comes as a hand takes hold of something: one that moves on is not held up. What
 * was let go of and waits for the server holds nothing back.
 */
export function LaterAtRest({ children }: { children: ReactNode }) {
  const held = useEditorPart((s) => s.doc !== s.still && s.saved === "saved");
  const [now, setNow] = useState(false);
  useEffect(() => {
    if (held) return;
    const soon = setTimeout(() => setNow(true));
    return () => clearTimeout(soon);
  }, [held]);
  return now ? children : null;
}

/** For what does not fit into one frame with what comes before it: it has the next to itself. */
export function NextFrame({ children }: { children: ReactNode }) {
  const [now, setNow] = useState(false);
  useEffect(() => afterFrames(1, () => setNow(true)), []);
  return now ? children : null;
}

/**
 * What somebody took hold of, once both drawings have it: the first is made ready with the frame
 * after the press, the other with the next, and what this draws comes after that.
 */
export function useTakenHold<T>(value: T): T {
  const [late, setLate] = useState(value);
  useEffect(() => afterFrames(3, () => setLate(value)), [value]);
  return late;
}

function afterFrames(count: number, run: () => void): () => void {
  let left = count;
  const step = () => {
    left -= 1;
    if (left > 0) frames.draw(step);
    else run();
  };
  frames.draw(step);
  return () => frames.drop(step);
}
