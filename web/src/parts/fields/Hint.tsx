/** More words about something: under the pointer, on focus, and at a touch. */
import { Tooltip } from "radix-ui";
import { type ReactNode, useState } from "react";

const BUBBLE =
  "z-[70] max-w-xs rounded-md bg-ink px-2.5 py-1.5 text-[0.82rem] whitespace-pre-line text-panel";

interface Props {
  words: string;
  children: ReactNode;
}

/** For what can be pressed: the press does its own work, the words come with pointer and focus. */
export function Hint({ words, children }: Props) {
  if (!words) return children;
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Bubble words={words} />
    </Tooltip.Root>
  );
}

/** For words that only say something: they take the focus, and a touch opens them. */
export function Told({ words, children, className = "" }: Props & { className?: string }) {
  const [open, setOpen] = useState(false);
  if (!words) return <span className={className}>{children}</span>;
  return (
    <Tooltip.Root open={open} onOpenChange={setOpen}>
      <Tooltip.Trigger
        type="button"
        className={`cursor-help text-left font-[inherit] ${className}`}
        onClick={(e) => {
          e.preventDefault(); // a press would close it, and a finger has nothing but presses
          setOpen(true);
        }}
      >
        {children}
      </Tooltip.Trigger>
      <Bubble words={words} />
    </Tooltip.Root>
  );
}

function Bubble({ words }: { words: string }) {
  return (
    <Tooltip.Portal>
      <Tooltip.Content className={BUBBLE} sideOffset={5} collisionPadding={8}>
        {words}
      </Tooltip.Content>
    </Tooltip.Portal>
  );
}
