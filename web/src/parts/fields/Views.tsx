/** Several views of which one is shown: its tabs, and the view below or wherever it is put. */
import { Tabs } from "radix-ui";
import { memo, type ReactNode } from "react";
import { saysTheSame } from "../steady";
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
  const { value, options, onTake, className, view, children, ...bar } = props;
  return (
    <Tabs.Root
      value={slug(value)}
      onValueChange={(v) => {
        const chosen = options.find(([key]) => slug(key) === v);
        if (chosen) onTake(chosen[0]);
      }}
      className={className}
    >
      <Bar {...bar} options={options} />
      <Tabs.Content value={slug(value)} className={`outline-none ${view ?? ""}`} tabIndex={-1}>
        {children}
      </Tabs.Content>
    </Tabs.Root>
  );
}

/** What stands beside them is a part of its own. */
const sameBar = ({ beside: one, ...was }: BarProps, { beside: two, ...now }: BarProps) =>
  one === two && saysTheSame(was, now);

type BarProps = Pick<Props<string>, "label" | "options" | "small" | "bar" | "beside">;

/** The tabs, which are not made anew for what is shown below them. */
const Bar = memo(function Bar({ label, options, small, bar = "", beside }: BarProps) {
  return (
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
  );
}, sameBar);
