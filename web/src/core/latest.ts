/**
 * Questions to the server while a hand moves something: a few under way, only the newest waits.
 * An answer that was called off, or that a newer one has overtaken, is dropped.
 */
export class Latest<Q, A> {
  private waiting: { question: Q } | null = null;
  private underWay = 0;
  private asked = 0;
  /** The newest question that is answered or called off. */
  private done = 0;

  constructor(
    private readonly ask: (question: Q) => Promise<A>,
    private readonly take: (answer: A, question: Q) => void,
    private readonly fail: (error: Error, question: Q) => void,
    private readonly atOnce = 1,
  ) {}

  want(question: Q): void {
    this.waiting = { question };
    this.next();
  }

  /** Nothing that was asked until now matters any more. */
  callOff(): void {
    this.waiting = null;
    this.done = this.asked;
  }

  private next(): void {
    while (this.waiting && this.underWay < this.atOnce) {
      const { question } = this.waiting;
      this.waiting = null;
      void this.one(question, ++this.asked);
    }
  }

  private async one(question: Q, number: number): Promise<void> {
    this.underWay++;
    try {
      const answer = await this.ask(question);
      if (number > this.done) {
        this.done = number;
        this.take(answer, question);
      }
    } catch (error) {
      if (number > this.done) this.fail(error as Error, question);
    }
    this.underWay--;
    this.next();
  }
}
