import { Ask } from "./Ask";

const KEYS = [
  ["Tab", "to the next mic, flag, field or button"],
  ["Arrows", "move the focused mic, drum or kit 1 cm in its view (the kit in the room 5 cm)"],
  ["Shift or Alt with arrows", "10 cm, or 1 mm"],
  ["Page Up, Page Down", "raise or lower the mic or drum; turn the kit in the room"],
  [
    "Enter",
    "select the focused mic or drum; with Shift, open a mic as a pair with the one selected",
  ],
  ["Arrows on the aim handle", "turn the aim 5°; Shift 15°, Alt 1°"],
  ["Arrows in the grid of pairs", "go from pair to pair"],
  ["Home, End, Page Up, Page Down there", "to the first or last pair of the row or column"],
  [
    "→, ← on a track of the patch",
    "into the next free input, or the one before; Delete pulls it out",
  ],
  ["↑, ↓ there", "to the next track; with Alt, move it in the order"],
  ["Arrows on a fader", "1 dB; Shift 6 dB; M mutes it, Home puts it back to the usual level"],
  ["1 to 5, A, B, X, space", "while hearing a pair: choose a version, switch, stop and start"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["?", "this list"],
];

/** Every key. */
export function KeyList({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Ask open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="num font-semibold">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Ask>
  );
}
