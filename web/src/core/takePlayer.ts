/**
 * Takes while they are heard: the channels of one, or of two, run side by side, and what is done to
 * one of them is heard at once and without a gap.
 *
 * Each channel goes through two delays of which one is heard. A new delay is set on the silent one,
 * then the two are faded across; so a delay never bends the pitch, and a flip never clicks. Pieces of
 * sound follow each other by the sample, on the clock of the sound itself.
 */
import type { Span } from "./spans";

/** What is done to a channel. */
export interface Way {
  flip: boolean;
  /** Samples later. */
  later: number;
  db: number;
  /** -100 left to 100 right. */
  pan: number;
  /** Of a mid-side pair the side: added on the left, taken away on the right. */
  side: boolean;
  on: boolean;
}

export type AudioDevice = Pick<
  AudioContext,
  | "createGain"
  | "createDelay"
  | "createStereoPanner"
  | "createChannelSplitter"
  | "createChannelMerger"
  | "createBufferSource"
  | "destination"
  | "currentTime"
> & { close(): Promise<void>; resume(): Promise<void> };

export type TrackIn = Pick<Way, "side">;

/** A take. */
export interface Source {
  rate: number;
  /** Channels a piece holds. */
  group: number;
  tracks: readonly TrackIn[];
  /** A piece of one group's sound. */
  piece: (group: number, span: Span) => Promise<AudioBuffer>;
}

interface Tap {
  delay: DelayNode;
  gain: GainNode;
}

interface Strip {
  /** Of its take. */
  rate: number;
  taps: [Tap, Tap];
  /** Which of the two is heard. */
  heard: 0 | 1;
  later: number;
  pan: StereoPannerNode | null;
}

/** A hundredth of a second, in three time constants: as good as over after five. */
const FADE_S = 0.01;
const LONGEST_DELAY_S = 1;
const AHEAD_S = 1.5;
const LOOK_MS = 150;
const START_S = 0.06;
/** Sound that is so long in coming, of how long it is, may be too late when it is to follow. */
const SLOW_SHARE = 0.5;
/** The ends of what is looped are faded, for a drum still rings there. */
const EDGE_S = 0.01;

export interface Playing {
  /** One after the other; of each a stretch of every take, equally long. */
  parts: readonly (readonly Span[])[];
  /** Again from the first after the last. */
  loop: boolean;
}

interface Clip {
  spans: readonly Span[];
  number: number;
  /** When it begins, on the device's clock, and how long it is, seconds. */
  when: number;
  long: number;
}

export class TakePlayer {
  private readonly master: GainNode;
  private readonly strips: Strip[];
  /** For each take one to every group of its channels. */
  private readonly splitters: ChannelSplitterNode[][];
  private readonly running = new Set<AudioBufferSourceNode>();
  private clips: Clip[] = [];
  private round = 0;
  /** How often sound came too late to follow without a gap. */
  late = 0;

  constructor(
    private readonly device: AudioDevice,
    private readonly sources: readonly Source[],
    volume: number,
    /** It is over: played to its end, or no sound came, and why. */
    private readonly over: (error: Error | null) => void,
  ) {
    this.master = device.createGain();
    this.master.gain.value = volume;
    this.master.connect(device.destination);
    this.splitters = sources.map(({ tracks, group }) =>
      Array.from({ length: Math.ceil(tracks.length / group) }, () =>
        device.createChannelSplitter(group),
      ),
    );
    this.strips = sources.flatMap((source, s) =>
      source.tracks.map((track, n) => this.strip(track, n, source, this.splitters[s] ?? [])),
    );
  }

  private strip(
    track: TrackIn,
    n: number,
    { rate, group }: Source,
    from: ChannelSplitterNode[],
  ): Strip {
    const { device } = this;
    const into = device.createGain();
    const { out, pan } = track.side ? this.sideOut() : this.panOut();
    const tap = (): Tap => {
      const delay = device.createDelay(LONGEST_DELAY_S);
      const gain = device.createGain();
      gain.gain.value = 0;
      into.connect(delay).connect(gain).connect(out);
      return { delay, gain };
    };
    from[Math.floor(n / group)]?.connect(into, n % group);
    return { rate, taps: [tap(), tap()], heard: 0, later: 0, pan };
  }

  private panOut() {
    const pan = this.device.createStereoPanner();
    pan.connect(this.master);
    return { out: pan as AudioNode, pan };
  }

  /** The side of a mid-side pair: as it is on the left, turned over on the right. */
  private sideOut() {
    const out = this.device.createGain();
    const turned = this.device.createGain();
    turned.gain.value = -1;
    const both = this.device.createChannelMerger(2);
    out.connect(both, 0, 0);
    out.connect(turned).connect(both, 0, 1);
    both.connect(this.master);
    return { out: out as AudioNode, pan: null };
  }

  setVolume(volume: number): void {
    this.master.gain.setTargetAtTime(volume, this.device.currentTime, FADE_S / 3);
  }

  /** What is done to every channel, in the order of the tracks, take by take; heard at once. */
  apply(ways: readonly Way[]): void {
    for (const [n, way] of ways.entries()) {
      const strip = this.strips[n];
      if (strip) this.turn(strip, way);
    }
  }

  private turn(strip: Strip, way: Way): void {
    const now = this.device.currentTime;
    if (strip.later !== way.later) {
      this.fade(strip.taps[strip.heard], 0, now);
      strip.heard = strip.heard ? 0 : 1;
      strip.later = way.later;
      strip.taps[strip.heard].delay.delayTime.setValueAtTime(way.later / strip.rate, now);
    }
    const size = way.on ? 10 ** (way.db / 20) : 0;
    this.fade(strip.taps[strip.heard], way.flip ? -size : size, now);
    strip.pan?.pan.setTargetAtTime(way.pan / 100, now, FADE_S / 3);
  }

  private fade({ gain }: Tap, to: number, now: number): void {
    gain.gain.cancelScheduledValues(now);
    gain.gain.setTargetAtTime(to, now, FADE_S / 3);
  }

  /** Which part is heard at this moment, and the sample of a take; null before the first. */
  position(take = 0): { number: number; sample: number } | null {
    const now = this.device.currentTime;
    const clip = this.clips.findLast((c) => c.when <= now);
    const [span, source] = [clip?.spans[take], this.sources[take]];
    if (!clip || !span || !source) return null;
    return { number: clip.number, sample: span.begin + (now - clip.when) * source.rate };
  }

  /** Seconds, on the clock of the sound. */
  get clock(): number {
    return this.device.currentTime;
  }

  /** Play from the first part; what played before ends. */
  play(what: Playing): void {
    this.stop();
    void this.device.resume();
    this.late = 0;
    void this.run(what, this.round).catch((error: Error) => this.end(error));
  }

  private async run({ parts, loop }: Playing, round: number): Promise<void> {
    const rate = this.sources[0]?.rate ?? 1;
    let due = 0;
    for (let n = 0; loop || n < parts.length; n++) {
      const spans = parts[n % parts.length] as readonly Span[];
      const next = parts[(n + 1) % parts.length] as readonly Span[];
      const count = spans[0]?.count ?? 0;
      const asked = performance.now();
      const pieces = await this.pieces(spans);
      const took = (performance.now() - asked) / 1000;
      const follows = loop || n + 1 < parts.length ? this.pieces(next).catch(() => null) : null;
      // Better begun a moment later than with a gap after the first part; but not much later.
      const long = count / rate;
      if (n === 0 && took > long * SLOW_SHARE)
        await Promise.race([follows, this.until(this.device.currentTime + long, round)]);
      if (this.round !== round) return;
      const now = this.device.currentTime;
      if (due < now + START_S / 2) {
        if (n > 0) this.late++;
        // On a sample, so that what follows is not read between two.
        due = Math.ceil((now + START_S) * rate) / rate;
      }
      const clip = { spans, number: n % parts.length, when: due, long };
      this.begin(pieces, clip, loop);
      due = Math.round(due * rate + count) / rate;
      await this.until(due - AHEAD_S, round);
      if (this.round !== round) return;
    }
    await this.until(due, round);
    if (this.round === round) this.end(null);
  }

  private end(error: Error | null): void {
    this.stop();
    this.over(error);
  }

  /** Of every take every group, in the order of the splitters. */
  private pieces(spans: readonly Span[]): Promise<AudioBuffer[]> {
    const asked = spans.flatMap((span, s) =>
      (this.splitters[s] ?? []).map((_, g) => (this.sources[s] as Source).piece(g, span)),
    );
    return Promise.all(asked);
  }

  private begin(pieces: AudioBuffer[], clip: Clip, edges: boolean): void {
    this.clips = [...this.clips.slice(-8), clip];
    const outs = this.splitters.flat();
    for (const [n, buffer] of pieces.entries()) {
      const source = this.device.createBufferSource();
      source.buffer = buffer;
      const out = outs[n] as AudioNode;
      source.connect(edges ? this.faded(clip, out) : out);
      source.onended = () => {
        source.disconnect();
        this.running.delete(source);
      };
      source.start(clip.when);
      this.running.add(source);
    }
  }

  private faded(clip: Clip, out: AudioNode): AudioNode {
    const gain = this.device.createGain();
    const end = clip.when + clip.long;
    gain.gain.setValueAtTime(0, clip.when);
    gain.gain.linearRampToValueAtTime(1, clip.when + EDGE_S);
    gain.gain.setValueAtTime(1, end - EDGE_S);
    gain.gain.linearRampToValueAtTime(0, end);
    gain.connect(out);
    return gain;
  }

  /** Waits until the device's clock has come so far, or something else is played. */
  private async until(when: number, round: number): Promise<void> {
    while (this.round === round && this.device.currentTime < when)
      await new Promise((done) => setTimeout(done, LOOK_MS));
  }

  stop(): void {
    this.round++;
    for (const source of this.running) {
      source.onended = null;
      source.stop();
      source.disconnect();
    }
    this.running.clear();
    this.clips = [];
  }

  close(): void {
    this.stop();
    void this.device.close();
  }
}
