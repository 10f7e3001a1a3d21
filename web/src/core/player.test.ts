import { describe, expect, it } from "vitest";
import { type AudioDevice, Player } from "./player";

/** A device that writes down what it is told. */
function device() {
  const started: { name: string; when: number; loop: boolean }[] = [];
  const stopped: string[] = [];
  const gains: { value: number; target: number | null }[] = [];
  const made = {
    currentTime: 1,
    destination: {},
    closed: false,
    createGain() {
      const param = {
        value: 1,
        target: null as number | null,
        cancelScheduledValues() {},
        setTargetAtTime(to: number) {
          param.target = to;
        },
      };
      gains.push(param);
      return { gain: param, connect() {} };
    },
    createBufferSource() {
      const source = {
        buffer: null as { name: string } | null,
        loop: false,
        connect() {},
        disconnect() {},
        start: (when: number) =>
          started.push({ name: source.buffer?.name ?? "", when, loop: source.loop }),
        stop: () => stopped.push(source.buffer?.name ?? ""),
      };
      return source;
    },
    decodeAudioData: async (file: ArrayBuffer) => ({ name: String(file.byteLength) }),
    resume: async () => {},
    close: async () => {
      made.closed = true;
    },
  };
  return { made, audio: made as unknown as AudioDevice, started, stopped, gains };
}

async function loaded() {
  const d = device();
  const player = new Player(d.audio, 0.25);
  await player.load("a", new ArrayBuffer(1));
  await player.load("b", new ArrayBuffer(2));
  return { ...d, player };
}

describe("the player", () => {
  it("starts all sounds at one moment and lets one be heard", async () => {
    const { player, started, gains } = await loaded();
    player.hear("a");
    expect(started).toEqual([
      { name: "1", when: 1.02, loop: true },
      { name: "2", when: 1.02, loop: true },
    ]);
    expect(gains.map((g) => g.target)).toEqual([null, 1, 0]);
    expect(gains[0]?.value).toBe(0.25);
  });

  it("switches without starting anything again", async () => {
    const { player, started, gains } = await loaded();
    player.hear("a");
    player.hear("b");
    expect(started).toHaveLength(2);
    expect(gains.map((g) => g.target)).toEqual([null, 0, 1]);
    expect(player.at).toBe("b");
    player.hear("unheard of");
    expect(player.at).toBe("b");
  });

  it("stops, begins anew and closes", async () => {
    const { player, started, stopped, made } = await loaded();
    player.hear("a");
    player.stop();
    expect(stopped).toEqual(["1", "2"]);
    expect(player.playing).toBe(false);
    player.hear("b");
    expect(started).toHaveLength(4);
    player.close();
    expect(made.closed).toBe(true);
  });
});
