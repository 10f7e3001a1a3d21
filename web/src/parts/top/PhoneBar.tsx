/** The head of the page on a phone: the step, the layout, a step back, whether all is saved. */
import type { ReactNode } from "react";
import { AccountMenu } from "../AccountMenu";
import { useEditorPart } from "../editing";
import { LayoutMenu } from "./LayoutMenu";
import { SavedState, UndoRedo } from "./TopBar";

export function PhoneBar({ steps }: { steps: ReactNode }) {
  const out = useEditorPart((s) => s.out);
  return (
    <header className="flex min-w-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-hair bg-panel px-2 py-1">
      {steps}
      <span className="flex min-w-0 flex-1">
        <LayoutMenu out={out} />
      </span>
      <UndoRedo out={out} />
      <SavedState />
      <AccountMenu />
    </header>
  );
}
