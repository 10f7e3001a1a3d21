/**
 * Sounds that all run at once, one of them heard: switching needs no start and leaves no gap.
 * The change is a fade of a hundredth of a second, so that it does not click.
 */
const FADE_S = 0.01;

/** What the player needs of Web Audio, so that it can be tested without any. */
export type AudioDevice = Pick<
  AudioContext,
  "createGain" | "createBufferSource" | "decodeAudioData" | "destination" | "currentTime"
> & { close(): Promise<void>; resume(): Promise<void> };

interface Lane {
  buffer: AudioBuffer;
  gain: GainNode;
  source: AudioBufferSourceNode | null;
}

export class Player {
  private readonly lanes = new Map<string, Lane>();
  private readonly master: GainNode;
  private heard: string | null = null;
  private running = false;

  constructor(
    private readonly device: AudioDevice,
    volume: number,
  ) {
    this.master = device.createGain();
    this.master.gain.value = volume;
    this.master.connect(device.destination);
  }

  async load(name: string, file: ArrayBuffer): Promise<void> {
    const buffer = await this.device.decodeAudioData(file);
    const gain = this.device.createGain();
    gain.gain.value = 0;
    gain.connect(this.master);
    this.lanes.set(name, { buffer, gain, source: null });
  }

  get playing(): boolean {
    return this.running;
  }

  get at(): string | null {
    return this.heard;
  }

  setVolume(volume: number): void {
    this.master.gain.value = volume;
  }

  /** Hear this one; begins all of them when nothing runs. */
  hear(name: string): void {
    if (!this.lanes.has(name)) return;
    if (!this.running) this.start();
    this.heard = name;
    const now = this.device.currentTime;
    for (const [other, lane] of this.lanes) {
      const to = other === name ? 1 : 0;
      lane.gain.gain.cancelScheduledValues(now);
      lane.gain.gain.setTargetAtTime(to, now, FADE_S / 3);
    }
  }

  private start(): void {
    void this.device.resume();
    const when = this.device.currentTime + 0.02;
    for (const lane of this.lanes.values()) {
      const source = this.device.createBufferSource();
      source.buffer = lane.buffer;
      source.loop = true;
      source.connect(lane.gain);
      source.start(when);
      lane.source = source;
    }
    this.running = true;
  }

  stop(): void {
    for (const lane of this.lanes.values()) {
      lane.source?.stop();
      lane.source?.disconnect();
      lane.source = null;
    }
    this.running = false;
  }

  close(): void {
    this.stop();
    void this.device.close();
  }
}
