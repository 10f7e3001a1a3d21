/** A number for each layout that was ever shown, so that answers about it can be kept by it. */
const numbers = new WeakMap<object, number>();
let last = 0;

/** The same number for the same layout, another for any other. */
export function serial(layout: object): number {
  let number = numbers.get(layout);
  if (number === undefined) {
    number = ++last;
    numbers.set(layout, number);
  }
  return number;
}
