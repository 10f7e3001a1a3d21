/** A part of the screens that may not come, or stop, without taking the rest along. */
import { Component, type ReactNode } from "react";

interface Props {
  children: ReactNode;
  /** Another piece is asked for: what stopped the one before does not stop it. */
  at?: string;
}

export class Piece extends Component<Props, { fault: Error | null }> {
  state = { fault: null as Error | null };

  static getDerivedStateFromError(fault: Error) {
    return { fault };
  }

  componentDidUpdate(before: Props) {
    if (before.at !== this.props.at && this.state.fault) this.setState({ fault: null });
  }

  render() {
    return this.state.fault ? <Stopped why={this.state.fault.message} /> : this.props.children;
  }
}

/** What was done is with the server, or kept in this browser until it is: reloading loses nothing. */
function Stopped({ why }: { why: string }) {
  return (
    <main className="flex max-w-xl flex-col items-start gap-3 p-8" role="alert">
      <h1 className="text-xl">This part of the screen has stopped</h1>
      <p>
        The connection may have failed, or a newer Ringside was started meanwhile. What you did is
        kept: load the page again to go on.
      </p>
      <p className="num text-sm text-soft">{why}</p>
      <button type="button" className="btn" onClick={() => location.reload()}>
        Load again
      </button>
    </main>
  );
}
