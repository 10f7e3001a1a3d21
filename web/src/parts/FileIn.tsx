/** A button that asks for a file; the same file may be chosen again after a fault. */
import { type ChangeEvent, useRef } from "react";

interface Props {
  label: string;
  words: string;
  accept: string;
  onFile: (file: File) => void;
}

export function FileIn({ label, words, accept, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const pick = (e: ChangeEvent<HTMLInputElement>) => {
    const file = e.target.files?.[0];
    e.target.value = "";
    if (file) onFile(file);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        onChange={pick}
        aria-label={label}
      />
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        {words}
      </button>
    </>
  );
}

/** A file as a form sends it. */
export function formOf(file: File): FormData {
  const form = new FormData();
  form.append("file", file);
  return form;
}
