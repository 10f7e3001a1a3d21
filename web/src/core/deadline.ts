/**
 * Something to do when nothing has put it off for a while. To put it off costs next to nothing,
 * however often a hand does: one clock runs on, and goes round again where it rings too early.
 */
export class Deadline {
  private at = Number.POSITIVE_INFINITY;
  private rings = Number.POSITIVE_INFINITY;
  private clock: ReturnType<typeof setTimeout> | undefined;
  private work: () => void = () => undefined;

  /** In so many milliseconds from now, and not before. */
  put(ms: number, work: () => void): void {
    this.work = work;
    this.at = Date.now() + ms;
    if (this.at < this.rings) this.wind(ms);
  }

  /** Not at all. */
  clear(): void {
    this.at = Number.POSITIVE_INFINITY;
  }

  get running(): boolean {
    return this.at < Number.POSITIVE_INFINITY;
  }

  private wind(ms: number): void {
    clearTimeout(this.clock);
    this.rings = Date.now() + ms;
    this.clock = setTimeout(this.ring, ms);
  }

  private ring = (): void => {
    this.rings = Number.POSITIVE_INFINITY;
    const early = this.at - Date.now();
    if (this.running && early > 0) this.wind(early);
    else if (this.running) {
      this.clear();
      this.work();
    }
  };
}
