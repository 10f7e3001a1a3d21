/** Where there is no room for the rail: all steps behind one button. */
import { ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { useEditorPart } from "../parts/editing";
import { Air } from "../parts/top/Air";
import { UnitsChoice } from "../parts/top/TopBar";
import { LABEL, NAMES, StepLinks } from "./StepLinks";

/** Which step is open, and the way to any other, to other layouts, other air and other units. */
export function StepsOnAPhone() {
  const [open, setOpen] = useState(false);
  const out = useEditorPart((s) => s.out);
  const { pathname, key } = useLocation();
  const at = pathname.split("/").at(-1) ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: closed by going anywhere, here included
  useEffect(() => setOpen(false), [key]);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="btn flex items-center gap-1 px-2.5">
        <span className="sr-only">Step:</span>
        {NAMES[at] ?? "Steps"}
        <ChevronDown size={15} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Where to go"
          className="z-50 max-h-[var(--radix-popover-content-available-height)] w-[min(23rem,94vw)] space-y-3 overflow-y-auto rounded-card border border-hair bg-card p-3"
          align="start"
          sideOffset={6}
          collisionPadding={8}
        >
          <nav aria-label={LABEL} className="grid grid-cols-5 gap-1.5">
            <StepLinks look={onAPhone} />
          </nav>
          <div className="flex flex-wrap items-center justify-between gap-2">
            <UnitsChoice />
            <Air />
          </div>
          <p className="text-[0.95rem]">
            <Link to="/" className="underline">
              To your sessions
            </Link>
            <span className="text-soft">
              {" "}
              from {out.session_name}
              {out.place && `, ${out.place}`}
            </span>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const onAPhone = (_: string, isActive: boolean) =>
  `flex min-h-[4.2rem] flex-col items-center justify-center gap-1 rounded-md border text-[0.95rem] ${isActive ? "border-ink bg-panel font-bold" : "border-hair"}`;
