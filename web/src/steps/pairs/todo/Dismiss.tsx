/** Why a line is not done: kept, so that nobody asks again. */
import type { FormEvent } from "react";
import { Ask } from "../../../parts/Ask";

interface Props {
  open: boolean;
  words: string;
  onClose: () => void;
  onGiven: (reason: string) => void;
}

export function Dismiss({ open, words, onClose, onGiven }: Props) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const reason = String(new FormData(e.currentTarget).get("reason")).trim();
    if (reason) onGiven(reason);
  };
  return (
    <Ask open={open} onClose={onClose} title="Dismiss this line" about={words}>
      <form onSubmit={submit} className="space-y-3">
        <label className="block">
          <span className="text-soft">Reason</span>
          <textarea name="reason" required maxLength={400} rows={3} className="field w-full" />
        </label>
        <button type="submit" className="btn-main w-full">
          Dismiss it
        </button>
      </form>
    </Ask>
  );
}
