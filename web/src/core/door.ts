/** Whether the server still knows who is here; whoever waits is told when somebody signed in. */
type Listener = () => void;

export class Door {
  private shut = false;
  private readonly listeners = new Set<Listener>();

  subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  isShut = (): boolean => this.shut;

  /** The server answered that it does not know who asks. */
  close(): void {
    this.turn(true);
  }

  /** Somebody signed in. */
  open(): void {
    this.turn(false);
  }

  private turn(shut: boolean): void {
    if (this.shut === shut) return;
    this.shut = shut;
    for (const listener of this.listeners) listener();
  }
}

export const door = new Door();
