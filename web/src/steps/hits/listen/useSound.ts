/** The sound of a take: fetched piece by piece, played, stopped. */
import { useEffect, useMemo, useRef, useState } from "react";
import { api, must } from "../../../api/client";
import type { TakeHeard } from "../../../api/types";
import { Pieces } from "../../../core/pieces";
import type { Span } from "../../../core/spans";
import { type Playing, TakePlayer, type Way } from "../../../core/takePlayer";

export const QUIET = 0.5;
/** Of decoded sound, bytes: some minutes of a small kit, the hits of a drum of a large one. */
const MOST_KEPT = 160_000_000;

const keyOf = (group: number, { begin, count }: Span) => `${group} ${begin} ${count}`;

function piecesOf(take: number, job: number, device: AudioContext) {
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
  return new Pieces<AudioBuffer>(fetched, (b) => b.length * b.numberOfChannels * 4, MOST_KEPT);
}

/** The device at the take's own rate, so that a sample stays one. */
function opened(take: number, job: number, heard: TakeHeard, over: (error: Error | null) => void) {
  const device = new AudioContext({ sampleRate: heard.rate_hz });
  const pieces = piecesOf(take, job, device);
  const piece = (group: number, span: Span) => pieces.get(keyOf(group, span));
  const { rate_hz: rate, group, tracks } = heard;
  return { player: new TakePlayer(device, { rate, group, tracks, piece }, QUIET, over), piece };
}

/** The channels of some stretches as they were recorded, in the order of the tracks. */
export type Parts = (spans: readonly Span[]) => Promise<Float32Array[][]>;

export function useSound(take: number, job: number, heard: TakeHeard, ways: readonly Way[]) {
  const open = useRef<ReturnType<typeof opened> | null>(null);
  const [on, setOn] = useState(false);
  const [bad, setBad] = useState("");
  const [volume, setVolume] = useState(QUIET);
  const wanted = useRef(ways);
  wanted.current = ways;
  // biome-ignore lint/correctness/useExhaustiveDependencies: another measurement is another sound
  useEffect(
    () => () => {
      open.current?.player.close();
      open.current = null;
      setOn(false);
    },
    [take, job],
  );
  useEffect(() => open.current?.player.apply(ways), [ways]);
  const acts = useMemo(() => {
    // Not before somebody asks for sound: a browser lets no page sound by itself.
    const ready = () => {
      open.current ??= opened(take, job, heard, (error) => {
        setOn(false);
        if (error) setBad(`${error.message} Press Play to go on.`);
      });
      return open.current;
    };
    const parts: Parts = (spans) =>
      Promise.all(
        spans.map(async (span) => {
          const groups = Math.ceil(heard.tracks.length / heard.group);
          const all = Array.from({ length: groups }, (_, g) => ready().piece(g, span));
          return (await Promise.all(all)).flatMap((b) =>
            Array.from({ length: b.numberOfChannels }, (_, c) => b.getChannelData(c)),
          );
        }),
      );
    return {
      parts,
      play: (what: Playing) => {
        setBad("");
        try {
          const { player } = ready();
          player.apply(wanted.current);
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
      now: () => ({
        at: open.current?.player.position() ?? null,
        late: open.current?.player.late ?? 0,
        clock: open.current?.player.clock ?? 0,
      }),
    };
  }, [take, job, heard]);
  return { ...acts, on, bad, volume };
}

export type Sound = ReturnType<typeof useSound>;
