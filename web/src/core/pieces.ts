/** Pieces of sound that were fetched: asked for once, and the oldest let go of when there are many. */
export class Pieces<T> {
  private readonly kept = new Map<string, { made: Promise<T>; size: number }>();
  private total = 0;

  constructor(
    private readonly fetched: (key: string) => Promise<T>,
    private readonly sizeOf: (piece: T) => number,
    private readonly most: number,
  ) {}

  get(key: string): Promise<T> {
    const known = this.kept.get(key);
    if (known) {
      // Last used, last to go.
      this.kept.delete(key);
      this.kept.set(key, known);
      return known.made;
    }
    const entry = { made: this.fetched(key), size: 0 };
    this.kept.set(key, entry);
    entry.made.then(
      (piece) => this.came(entry, this.sizeOf(piece)),
      () => this.kept.delete(key), // asked for anew next time
    );
    return entry.made;
  }

  private came(entry: { size: number }, size: number): void {
    entry.size = size;
    this.total += size;
    for (const [key, old] of this.kept) {
      if (this.total <= this.most || old === entry) return;
      if (!old.size) continue; // still on its way
      this.kept.delete(key);
      this.total -= old.size;
    }
  }
}
