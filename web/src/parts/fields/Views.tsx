/** Several views of which one is shown: its tabs, and the view below or wherever it is put. */
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";
import { SEGMENTS, segment } from "./Segmented";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onTake: (value: T) => void;
  small?: boolean;
  /** Of the line the tabs stand on. */
  bar?: string;
  className?: string;
  /** Of what is shown. */
  view?: string;
  /** Beside the tabs. */
  beside?: ReactNode;
  children: ReactNode;
}

/** A value becomes part of an id, which has no spaces. */
const slug = (key: string) => key.replaceAll(" ", "-");

export function Views<T extends string>(props: Props<T>) {
  const { label, value, options, onTake, small, bar = "", className, view, beside } = props;
  return (
    <Tabs.Root
      value={slug(value)}
      onValueChange={(v) => {
        const chosen = options.find(([key]) => slug(key) === v);
        if (chosen) onTake(chosen[0]);
      }}
      className={className}
    >
      <div className={bar}>
        <Tabs.List aria-label={label} className={SEGMENTS}>
          {options.map(([key, text]) => (
            <Tabs.Trigger key={key} value={slug(key)} className={segment(small)}>
              {text}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {beside}
      </div>
      <Tabs.Content value={slug(value)} className={`outline-none ${view ?? ""}`} tabIndex={-1}>
        {props.children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
