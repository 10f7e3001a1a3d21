/** What every listening has in common: keys that act wherever the focus is, and the blind test. */
import { useEffect, useRef, useState } from "react";
import { answered, type Blind, begun } from "../core/blind";

export type Side = "A" | "B";

/** Keys act wherever the focus is, but not on what has use for them itself. */
export function useKeys(press: (key: string) => boolean) {
  const keys = useRef(press);
  keys.current = press;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || !(e.target instanceof HTMLElement)) return;
      if (e.target.closest("[role=combobox], [role=listbox], [role=slider]")) return;
      if (e.key === " " && e.target instanceof HTMLButtonElement) return;
      if (keys.current(e.key.toLowerCase())) e.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

/** The blind test: begun, answered, ended; each stops the sound. */
export function useBlind(stop: () => void) {
  const [blind, setBlind] = useState<Blind | null>(null);
  const [last, setLast] = useState("");
  const begin = () => {
    stop();
    setLast("");
    setBlind(begun());
  };
  const answer = (which: Side) => {
    if (!blind) return;
    setLast(which === blind.x ? "Right." : `No, it was ${blind.x}.`);
    setBlind(answered(blind, which));
    stop();
  };
  const end = () => {
    stop();
    setBlind(null);
  };
  return { blind, last, begin, answer, end };
}
