/** A long list: typed words sift it, arrows walk it, Enter takes. */
import { Check, ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { FIELD, LIST, OPTION, type PickProps } from "./pickLook";
import { Scroll } from "./Scroll";

export function SearchPick(props: PickProps & { id: string }) {
  const { id, value, names, placeholder, className = "" } = props;
  const [open, setOpen] = useState(false);
  const shown = value === "" && placeholder !== undefined ? placeholder : (names?.[value] ?? value);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        id={id}
        role="combobox"
        aria-expanded={open}
        aria-haspopup="listbox"
        disabled={props.disabled}
        className={`${FIELD} w-full ${className}`}
        data-value={value}
      >
        <span className="truncate">{shown}</span>
        <ChevronDown size={14} className="shrink-0 text-soft" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className={`${LIST} w-64`} align="start" sideOffset={4}>
          <Sifted {...props} onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Sifted(props: PickProps & { onDone: () => void }) {
  const { label, value, options, names, onTake, onDone } = props;
  const [words, setWords] = useState("");
  const [at, setAt] = useState(Math.max(0, options.indexOf(value)));
  const list = useId();
  const name = (o: string) => names?.[o] ?? o;
  const found = options.filter((o) => name(o).toLowerCase().includes(words.trim().toLowerCase()));
  const take = (o: string | undefined) => {
    if (o === undefined) return;
    onTake(o);
    onDone();
  };
  const onKey = (e: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[e.key];
    if (by) setAt((i) => Math.max(0, Math.min(found.length - 1, i + by)));
    else if (e.key === "Enter") take(found[at]);
    else return;
    e.preventDefault();
  };
  const current = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is pointed at is brought into view
  useEffect(() => {
    // Newer browsers answer with a promise, which React would take for a clean-up.
    void current.current?.scrollIntoView({ block: "nearest" });
  }, [at]);
  return (
    <>
      <input
        role="combobox"
        aria-expanded="true"
        aria-controls={list}
        aria-activedescendant={found.length ? `${list}-${at}` : undefined}
        aria-label={`Search: ${label}`}
        placeholder="Search"
        className="field mb-1 w-full"
        value={words}
        onChange={(e) => {
          setWords(e.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <Scroll className="max-h-72">
        <div id={list} role="listbox" aria-label={label}>
          {found.map((o, i) => (
            <div
              key={o}
              ref={i === at ? current : undefined}
              id={`${list}-${i}`}
              role="option"
              tabIndex={-1}
              aria-selected={o === value}
              data-option={o}
              className={`${OPTION} hover:bg-tint ${i === at ? "bg-tint" : ""}`}
              onClick={() => take(o)}
              onKeyDown={onKey}
            >
              {name(o)}
              {o === value && <Check size={14} />}
            </div>
          ))}
        </div>
        {found.length === 0 && <p className="px-2 py-1 text-soft">Nothing by that name.</p>}
      </Scroll>
    </>
  );
}
