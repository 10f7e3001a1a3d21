/** What is longer than its place: one look of the bar, reached by touch and by keyboard. */
import { getNonce } from "get-nonce";
import { ScrollArea } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  className?: string;
  /** Names the region, which then takes the focus so that keys can scroll it. */
  label?: string;
  /** The bar stands wherever there is more, not under the pointer only. */
  seen?: boolean;
  children: ReactNode;
}

export function Scroll({ className = "", label, seen, children }: Props) {
  const region = label ? { role: "region", "aria-label": label, tabIndex: 0 } : {};
  return (
    <ScrollArea.Root
      type={seen ? "auto" : "hover"}
      className={`relative flex min-h-0 flex-col overflow-hidden ${className}`}
    >
      <ScrollArea.Viewport nonce={getNonce()} {...region} className="min-h-0 flex-1 [&>div]:!block">
        {children}
      </ScrollArea.Viewport>
      <ScrollArea.Scrollbar orientation="vertical" className="w-2 p-px">
        <ScrollArea.Thumb className="rounded-full bg-nomatter" />
      </ScrollArea.Scrollbar>
    </ScrollArea.Root>
  );
}
