/** Listening to a take: what sounds, which side is heard, and the blind test. */
import { useState } from "react";
import type { TakeHeard } from "../../../api/types";
import type { Playing } from "../../../core/takePlayer";
import { type Side, useBlind, useKeys } from "../../../parts/hearing";
import { useAlike, useSides } from "./useSides";
import { useSound } from "./useSound";

export function useListen(take: number, job: number, heard: TakeHeard, playing: Playing) {
  const sides = useSides(heard);
  const [hearsX, setHearsX] = useState(false);
  const [alike, setAlike] = useState(true);
  const test = useBlind(() => sound.stop());
  const { blind } = test;
  const shown: Side = blind && hearsX ? blind.x : sides.side;
  const sound = useSound(take, job, heard, sides.ways[shown]);
  useAlike(sides, sound.parts, playing.loop ? playing.spans : null, alike && sound.on);
  const play = () => sound.play(playing);
  const hear = (side: Side) => {
    setHearsX(false);
    sides.setSide(side);
    if (!sound.on) play();
  };
  const hearX = () => {
    setHearsX(true);
    if (!sound.on) play();
  };
  useKeys((key) => {
    if (key === "a") hear("A");
    else if (key === "b") hear("B");
    else if (key === "x" && blind) hearX();
    else if (key === " ") sound.on ? sound.stop() : play();
    else return false;
    return true;
  });
  return {
    sides,
    sound,
    play,
    hear,
    hearX,
    hearsX: hearsX && blind !== null,
    alike,
    setAlike,
    test,
  };
}

export type Listened = ReturnType<typeof useListen>;
