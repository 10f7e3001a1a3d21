/**
 * Edits of the kit on their way to the core and back: one at a time, in order.
 *
 * While a part is dragged only the newest place waits; what is let go of is never dropped.
 * Each edit is made from the layout as it is when its turn comes, so keys held down add up.
 */
import type { KitEdit, KitEdited, Layout } from "../api/types";

export type Make = (doc: Layout) => KitEdit | null;
type How = "preview" | "commit";

interface World {
  /** The layout without what the hand is just doing. */
  still(): Layout;
  ask(layout: Layout, edit: KitEdit): Promise<KitEdited>;
  preview(layout: Layout): void;
  commit(layout: Layout, what: string): void;
  trouble(error: Error): void;
}

export class KitHands {
  private waiting: { make: Make; how: How; done: (ok: boolean) => void }[] = [];
  private busy = false;

  constructor(private readonly world: World) {}

  /** Show where a part would be while the hand holds it. */
  preview(make: Make): void {
    this.waiting = this.waiting.filter((w) => w.how === "commit");
    this.waiting.push({ make, how: "preview", done: () => undefined });
    void this.run();
  }

  /** Take an edit; resolves to whether it was taken. */
  commit(make: Make): Promise<boolean> {
    this.waiting = this.waiting.filter((w) => w.how === "commit");
    return new Promise((done) => {
      this.waiting.push({ make, how: "commit", done });
      void this.run();
    });
  }

  private async run(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
      const { make, how, done } = next;
      const still = this.world.still();
      const edit = make(still);
      if (!edit) {
        done(false);
        continue;
      }
      try {
        const answer = await this.world.ask(still, edit);
        const dropped = how === "preview" && this.waiting.some((w) => w.how === "commit");
        if (how === "commit") this.world.commit(answer.layout, answer.words);
        else if (!dropped) this.world.preview(answer.layout);
        done(true);
      } catch (error) {
        // Back to what holds: nothing half done stays on the screen.
        this.world.preview(this.world.still());
        this.world.trouble(error as Error);
        done(false);
      }
    }
    this.busy = false;
  }
}
