/** The steps of the work down the side. */
import { AT_THE_KIT, LABEL, StepLinks } from "./StepLinks";

export function Steps() {
  return (
    <nav aria-label={LABEL} className="flex flex-col border-r border-hair bg-panel pt-3">
      <StepLinks look={onTheRail} />
    </nav>
  );
}

const onTheRail = (to: string, isActive: boolean) =>
  `${to === AT_THE_KIT ? "mt-2 border-t border-t-hair pt-4 " : ""}flex flex-col items-center gap-1 border-l-[3px] py-3 text-[0.88rem] ${isActive ? "border-ink bg-card font-bold" : "border-transparent text-soft hover:text-ink"}`;
