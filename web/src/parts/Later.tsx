/** What is not looked at first comes right after the first picture, so that this one comes sooner. */
import { type ReactNode, startTransition, useEffect, useState } from "react";
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
