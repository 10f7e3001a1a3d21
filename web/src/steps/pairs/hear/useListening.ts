/** What is heard now, the two that are held against each other, and the blind test on them. */
import { useEffect, useRef, useState } from "react";
import type { Example } from "../../../api/types";
import { answered, type Blind, begun } from "../../../core/blind";
import type { Player } from "../../../core/player";
import { QUIET } from "./useExample";

export type Version = Example["versions"][number];
export type Side = "A" | "B";

export const VERSIONS: Version[] = ["a", "b", "wired", "flipped", "aligned"];

/** Keys act wherever the focus is, but not on what has use for them itself. */
function useKeys(press: (key: string) => boolean) {
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
function useBlind(stop: () => void) {
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

export function useListening(player: Player | null) {
  const [heard, setHeard] = useState<string | null>(null);
  const [volume, setVolume] = useState(QUIET);
  const [two, setTwo] = useState<Record<Side, Version>>({ A: "wired", B: "flipped" });
  const hear = (shown: string, version: Version) => {
    player?.hear(version);
    setHeard(shown);
  };
  const stop = () => {
    player?.stop();
    setHeard(null);
  };
  const test = useBlind(stop);
  const { blind } = test;
  const hearX = () => blind && hear("X", two[blind.x]);
  useKeys((key) => {
    const version = VERSIONS[Number(key) - 1];
    if (version && !blind) hear(version, version);
    else if (key === "a") hear("A", two.A);
    else if (key === "b") hear("B", two.B);
    else if (key === "x" && blind) hearX();
    else if (key === " ") heard ? stop() : hear("A", two.A);
    else return false;
    return true;
  });
  const loud = (v: number) => {
    setVolume(v);
    player?.setVolume(v);
  };
  return { heard, volume, loud, two, setTwo, hear, hearX, stop, test };
}

export type Listened = ReturnType<typeof useListening>;

/** What each version is called. */
export type Names = Record<Version, string>;
