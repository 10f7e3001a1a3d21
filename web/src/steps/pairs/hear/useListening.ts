/** What is heard now, the two that are held against each other, and the blind test on them. */
import { useState } from "react";
import type { Example } from "../../../api/types";
import type { Player } from "../../../core/player";
import { type Side, useBlind, useKeys } from "../../../parts/hearing";
import { QUIET } from "./useExample";

export type Version = Example["versions"][number];

export const VERSIONS: Version[] = ["a", "b", "wired", "flipped", "aligned"];

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
