/** The sound of a take, or of two side by side: fetched piece by piece, played, stopped. */
import { useEffect, useMemo, useRef, useState } from "react";
import { api, must } from "../../../api/client";
import { Pieces } from "../../../core/pieces";
import type { Span } from "../../../core/spans";
import { type Playing, TakePlayer, type Way } from "../../../core/takePlayer";
import type { Deck } from "./decks";

export const QUIET = 0.5;
const NONE = new Float32Array();
/** Of decoded sound, bytes, of all takes: some minutes of a small kit, a drum's hits of a large one. */
const MOST_KEPT = 160_000_000;

const keyOf = (group: number, { begin, count }: Span) => `${group} ${begin} ${count}`;

function piecesOf({ take, job }: Deck, device: AudioContext, most: number) {
  const fetched = async (key: string) => {
    const [group = 0, begin = 0, count = 0] = key.split(" ").map(Number);
    const flac = await must<ArrayBuffer>(
      api.GET("/api/takes/{pk}/measures/{job}/sound", {
        params: { path: { pk: take, job }, query: { group, begin, count } },
        parseAs: "arrayBuffer",
      }),
    );
    return device.decodeAudioData(flac);
  };
  return new Pieces<AudioBuffer>(fetched, (b) => b.length * b.numberOfChannels * 4, most);
}

/** The device at the first take's own rate, so that a sample stays one. */
function opened(decks: readonly Deck[], volume: number, over: (error: Error | null) => void) {
  const device = new AudioContext({ sampleRate: decks[0]?.heard.rate_hz });
  const sources = decks.map((deck) => {
    const pieces = piecesOf(deck, device, MOST_KEPT / decks.length);
    const piece = (group: number, span: Span) => pieces.get(keyOf(group, span));
    const { rate_hz: rate, group, tracks } = deck.heard;
    return { rate, group, tracks, piece };
  });
  return { player: new TakePlayer(device, sources, volume, over), sources };
}

/** The channels of some stretches of a take as they were recorded, in the order of its tracks. */
export type Parts = (deck: number, spans: readonly Span[]) => Promise<Float32Array[][]>;

export function useSound(decks: readonly Deck[], ways: readonly Way[]) {
  const open = useRef<ReturnType<typeof opened> | null>(null);
  const [on, setOn] = useState(false);
  const [bad, setBad] = useState("");
  const [volume, setVolume] = useState(QUIET);
  const wanted = useRef({ ways, volume });
  wanted.current = { ways, volume };
  // biome-ignore lint/correctness/useExhaustiveDependencies: other takes are another sound
  useEffect(
    () => () => {
      open.current?.player.close();
      open.current = null;
      setOn(false);
    },
    [decks],
  );
  useEffect(() => open.current?.player.apply(ways), [ways]);
  const acts = useMemo(() => {
    // Not before somebody asks for sound: a browser lets no page sound by itself.
    const ready = () => {
      open.current ??= opened(decks, wanted.current.volume, (error) => {
        setOn(false);
        if (error) setBad(`${error.message} Press Play to go on.`);
      });
      return open.current;
    };
    const parts: Parts = (deck, spans) =>
      Promise.all(
        spans.map(async (span) => {
          const source = ready().sources[deck];
          const groups = source ? Math.ceil(source.tracks.length / source.group) : 0;
          const all = Array.from({ length: groups }, (_, g) => source?.piece(g, span));
          return (await Promise.all(all)).flatMap((b) =>
            Array.from(
              { length: b?.numberOfChannels ?? 0 },
              (_, c) => b?.getChannelData(c) ?? NONE,
            ),
          );
        }),
      );
    return {
      parts,
      play: (what: Playing) => {
        setBad("");
        try {
          const { player } = ready();
          player.apply(wanted.current.ways);
          player.play(what);
          setOn(true);
        } catch (error) {
          setBad(`This browser gives no sound here: ${(error as Error).message}`);
        }
      },
      stop: () => {
        open.current?.player.stop();
        setOn(false);
      },
      loud: (v: number) => {
        setVolume(v);
        open.current?.player.setVolume(v);
      },
      now: (deck: number) => ({
        at: open.current?.player.position(deck) ?? null,
        late: open.current?.player.late ?? 0,
        clock: open.current?.player.clock ?? 0,
      }),
    };
  }, [decks]);
  return { ...acts, on, bad, volume };
}

export type Sound = ReturnType<typeof useSound>;
