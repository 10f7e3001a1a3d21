/** Listening to a take: what sounds, which side is heard, and the blind test. */
import { useState } from "react";
import { type Side, useBlind, useKeys } from "../../../parts/hearing";
import { type Deck, useOther } from "./decks";
import { usePlayed } from "./usePlayed";
import { useAlike, useSides } from "./useSides";
import { useSound } from "./useSound";

export function useListen(own: Deck) {
  const sides = useSides(own);
  const played = usePlayed(sides);
  const other = useOther(own, sides.put);
  const [hearsX, setHearsX] = useState(false);
  const [alike, setAlike] = useState(true);
  const test = useBlind(() => sound.stop());
  const { blind } = test;
  const shown: Side = blind && hearsX ? blind.x : sides.side;
  const sound = useSound(sides.decks, sides.ways[shown]);
  useAlike(sides, sound.parts, played.moments, alike && sound.on);
  const play = () => sound.play(played.program);
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
    other,
    played,
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
