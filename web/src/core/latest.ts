/**
 * Questions to the server while a hand moves a slider: one under way, only the newest waits.
 * An answer that was called off, or that a newer one has overtaken, is dropped.
 */
export class Latest<Q, A> {
  private waiting: { question: Q } | null = null;
  private busy = false;
  private round = 0;

  constructor(
    private readonly ask: (question: Q) => Promise<A>,
    private readonly take: (answer: A, question: Q) => void,
    private readonly fail: (error: Error, question: Q) => void,
  ) {}

  want(question: Q): void {
    this.waiting = { question };
    void this.run();
  }

  /** Nothing that was asked until now matters any more. */
  callOff(): void {
    this.waiting = null;
    this.round++;
  }

  private async run(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    while (this.waiting) {
      const { question } = this.waiting;
      this.waiting = null;
      const round = this.round;
      try {
        const answer = await this.ask(question);
        if (round === this.round) this.take(answer, question);
      } catch (error) {
        if (round === this.round) this.fail(error as Error, question);
      }
    }
    this.busy = false;
  }
}
