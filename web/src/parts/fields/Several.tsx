/** A few numbers in one field. */
import { TextField } from "./typed";

/** Up to four numbers parted by spaces, as `10 20`; empty is none. */
export function Several(props: {
  label: string;
  values: readonly number[];
  low: number;
  high: number;
  onTake: (values: number[]) => void;
}) {
  const { label, values, low, high, onTake } = props;
  return (
    <TextField
      label={label}
      value={values.join(" ")}
      wrong={`up to four numbers, ${low} to ${high}`}
      onTake={(text) => {
        const typed = text
          .split(/[\s;]+/)
          .filter(Boolean)
          .map((t) => Number(t.replace(",", ".")));
        if (typed.length > 4 || !typed.every((n) => n >= low && n <= high)) return false;
        onTake(typed);
        return true;
      }}
    />
  );
}
