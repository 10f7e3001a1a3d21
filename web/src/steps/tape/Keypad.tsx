/** Big keys for a reading, for one thumb: what there is of them goes by the units. */
import { Delete } from "lucide-react";
import type { MouseEvent, PointerEvent } from "react";
import type { Units } from "../../api/types";

const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];
const LAST: Record<Units, string[]> = {
  cm: [".", "0"],
  "ft-in": ["′", "0", "″"],
  hand: ["½", "0"],
};
const MORE: Record<Units, string[]> = {
  cm: [],
  "ft-in": ["⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"],
  hand: ["h", "fist", "f", "card"],
};

interface Props {
  units: Units;
  onText: (change: (now: string) => string) => void;
}

/**
 * A key counts when it is pressed: what stands above may grow before it is let go of, and a digit
 * that slips away is not seen to. Without a pointer a click is all there is.
 */
const pressed = (act: () => void) => ({
  onPointerDown: (e: PointerEvent) => e.button === 0 && act(),
  onClick: (e: MouseEvent) => e.detail === 0 && act(),
});

/** A word stands off what is before it: 6 h fist 2½ f. */
const joined = (text: string, key: string) =>
  key.length > 1 || key === "h" || key === "f" ? `${text} ${key} `.trimStart() : `${text}${key}`;

export function Keypad({ units, onText }: Props) {
  const key = (name: string, wide = "") => (
    <button
      key={name}
      type="button"
      tabIndex={-1}
      className={`btn num min-h-14 touch-none text-[1.4rem] ${wide}`}
      {...pressed(() => onText((now) => joined(now, name)))}
    >
      {name}
    </button>
  );
  return (
    <div role="group" aria-label="Keypad" className="space-y-2">
      {MORE[units].length > 0 && (
        <div className="grid auto-cols-fr grid-flow-col gap-1.5">
          {MORE[units].map((k) => key(k, "px-0 text-[1.05rem]"))}
        </div>
      )}
      <div className="grid grid-cols-3 gap-2">
        {DIGITS.map((k) => key(k))}
        {LAST[units].map((k) => key(k))}
        <button
          type="button"
          tabIndex={-1}
          aria-label="Take the last one back"
          className={`btn grid min-h-14 touch-none place-items-center ${LAST[units].length > 2 ? "col-span-3" : ""}`}
          {...pressed(() => onText((now) => now.trimEnd().slice(0, -1)))}
        >
          <Delete size={24} />
        </button>
      </div>
    </div>
  );
}
