/** One of several: a list that opens, to be searched where it is long; the same in every browser. */
import { getNonce } from "get-nonce";
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";
import { memo, useId, useState } from "react";
import { saysTheSame, useSteady } from "../steady";
import { FIELD, LIST, OPTION, type PickProps } from "./pickLook";
import { SearchPick } from "./SearchPick";

/** From here on a list is searched rather than looked through. */
const LONG = 14;
/** Radix knows no empty value; here it stands for "none of them". */
const NONE = "\u2205";

/** Made anew only where it says something else: dozens of parts make up the smallest list. */
export function Pick(props: PickProps) {
  return <Drawn {...props} onTake={useSteady(props.onTake)} />;
}

const Drawn = memo(function Drawn(props: PickProps) {
  const id = useId();
  const { label, hideLabel, className = "" } = props;
  return (
    <div className={hideLabel ? "min-w-0" : "block min-w-0"}>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-[0.8rem] text-soft"}>
        {label}
      </label>
      {props.options.length > LONG ? (
        <SearchPick {...props} id={id} />
      ) : (
        <ShortPick {...props} id={id} className={hideLabel ? className : `w-full ${className}`} />
      )}
    </div>
  );
}, saysTheSame);

function ShortPick(props: PickProps & { id: string }) {
  const { id, value, options, names, onTake, placeholder } = props;
  const menu = placeholder !== undefined;
  // A page has dozens of lists, each more to draw than all that is seen of it: it is made when
  // somebody comes near, letters that are typed at the closed one included.
  const [near, setNear] = useState(false);
  const come = () => setNear(true);
  return (
    <Select.Root
      value={menu && value === "" ? "" : value || NONE}
      onValueChange={(v) => v !== "" && onTake(v === NONE ? "" : v)}
      onOpenChange={come}
      disabled={props.disabled}
    >
      <Select.Trigger
        id={id}
        className={`${FIELD} ${props.className}`}
        data-value={value}
        onFocus={come}
        onPointerEnter={come}
      >
        <span className="truncate">
          <Select.Value placeholder={placeholder}>
            {options.includes(value) ? (names?.[value] ?? value) : ""}
          </Select.Value>
        </span>
        <Select.Icon>
          <ChevronDown size={14} className="text-soft" />
        </Select.Icon>
      </Select.Trigger>
      {near && <OpenList {...props} />}
    </Select.Root>
  );
}

function OpenList({ options, names }: PickProps) {
  return (
    <Select.Portal>
      <Select.Content className={LIST} position="popper" sideOffset={4}>
        <Select.Viewport nonce={getNonce()}>
          {options.map((o) => (
            <Select.Item
              key={o || NONE}
              value={o || NONE}
              data-option={o}
              className={`${OPTION} data-[highlighted]:bg-tint`}
            >
              <Select.ItemText>{names?.[o] ?? o}</Select.ItemText>
              <Select.ItemIndicator>
                <Check size={14} />
              </Select.ItemIndicator>
            </Select.Item>
          ))}
        </Select.Viewport>
      </Select.Content>
    </Select.Portal>
  );
}

/** A choice within a form: it keeps its own value and is sent under its name. */
export function FormPick(
  props: Omit<PickProps, "value" | "onTake"> & { name: string; start: string },
) {
  const { name, start, ...rest } = props;
  const [value, setValue] = useState(start);
  return (
    <>
      <Pick {...rest} value={value} onTake={setValue} />
      <input type="hidden" name={name} value={value} />
    </>
  );
}
