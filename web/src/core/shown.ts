/**
 * A layout as it stands, shown in the place of its plan. What is switched or turned up there is so in
 * the plan; where something stands is changed at its stand, so no drawing moves it.
 */
import type { AsItStands, Layout, LayoutOut, Mic } from "../api/types";
import { Editor } from "./editor";
import { micOf } from "./edits";
import { newKey } from "./key";
import { sameWhereEqual } from "./same";
import type { Wire } from "./world";

/** The plan that is shown as it stands. */
export interface Plan {
  now: () => Layout;
  commit: (plan: Layout, what: string, soon: boolean, key: string) => void;
  /** Something was to be moved on the drawing, or the plan was changed meanwhile. */
  refuse: (why: string) => void;
}

export const AT_THE_STAND =
  "This is where it stands: it is moved at the stand, and read again. Choose Planned to move it in the plan.";
export const MEANWHILE = "The plan has changed meanwhile. Try again in a moment.";

const same = <T>(one: T, two: T) => sameWhereEqual(one, two) === one;

/** Where a mic of the plan is planned, when it is still where it stands; null when it was moved. */
function plannedMic(plan: Layout, stands: Layout, mic: Mic, gone: readonly Mic[]): Mic | null {
  const was = micOf(stands, mic.id);
  // One under another name stands where the one stood that has gone.
  const of = was ?? gone.find((m) => same(m.position_m, mic.position_m));
  const planned = of && micOf(plan, of.id);
  if (!of || !planned) return mic;
  return same(of.position_m, mic.position_m) ? { ...mic, position_m: planned.position_m } : null;
}

/** What was changed of a layout as it stands, in its plan; null where places were changed. */
export function ontoPlan(plan: Layout, stands: Layout, doc: Layout): Layout | null {
  if (!same(stands.kit, doc.kit)) return null;
  const gone = stands.mics.filter((m) => !micOf(doc, m.id));
  const mics: Mic[] = [];
  for (const mic of doc.mics) {
    const planned = plannedMic(plan, stands, mic, gone);
    if (!planned) return null;
    mics.push(planned);
  }
  return { ...plain(doc), kit: plan.kit, mics };
}

/** A layout without what was measured of it, as it is kept. */
export function plain(doc: Layout | AsItStands): Layout {
  const { stood: _, ...rest } = doc as AsItStands;
  return rest;
}

const sameMics = (one: Layout, two: Layout) =>
  one.mics.length === two.mics.length && one.mics.every((m, n) => m.id === two.mics[n]?.id);

const nowhere = { getItem: () => null, setItem: () => undefined, removeItem: () => undefined };

export class Shown extends Editor {
  /** The plan of which this is how it stands. */
  private base: Layout;

  constructor(
    out: LayoutOut,
    stands: AsItStands,
    wire: Wire,
    private readonly plan: Plan,
  ) {
    super({ ...out, doc: stands, can_undo: false, can_redo: false }, wire, nowhere);
    this.base = plan.now();
  }

  /** It stands otherwise now, or the plan is another. */
  stand(stands: AsItStands, base: Layout): void {
    this.base = base;
    this.take({ ...this.snapshot().out, doc: stands });
  }

  private keeps(doc: Layout): boolean {
    return ontoPlan(this.base, this.snapshot().still, doc) !== null;
  }

  override preview(doc: Layout): void {
    if (this.keeps(doc)) super.preview(this.measured(doc));
  }
  override show(doc: Layout): void {
    if (this.keeps(doc)) super.show(this.measured(doc));
  }
  override showWhole(doc: Layout): void {
    if (this.keeps(doc)) super.showWhole(this.measured(doc));
  }
  override move(): void {}
  override drop(): void {}

  override commit(doc: Layout, what: string, key: string = newKey()): void {
    this.through(doc, what, false, key);
  }
  override commitSoon(doc: Layout, what: string, key: string = newKey()): void {
    this.through(doc, what, true, key);
  }
  override async step(): Promise<void> {}

  private through(doc: Layout, what: string, soon: boolean, key: string): void {
    const { still, out } = this.snapshot();
    const changed = ontoPlan(this.base, still, doc);
    if (!changed || this.plan.now() !== this.base) {
      this.take({ ...out, doc: still });
      this.plan.refuse(changed ? MEANWHILE : AT_THE_STAND);
      return;
    }
    this.base = changed;
    if (sameMics(still, doc)) this.take({ ...out, doc: this.measured(doc) });
    this.plan.commit(changed, what, soon, key);
  }

  /** With what was measured, also where it comes back from the core without. */
  private measured(doc: Layout): Layout {
    const { stood } = this.snapshot().still as AsItStands;
    return sameMics(this.snapshot().still, doc) ? ({ ...plain(doc), stood } as Layout) : plain(doc);
  }
}
