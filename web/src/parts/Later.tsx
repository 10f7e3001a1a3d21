/** What is not looked at first comes right after the first picture, so that this one comes sooner. */
import { Children, type ReactNode, startTransition, useEffect, useState } from "react";
import { flushSync } from "react-dom";
import type { EditorState } from "../core/editor";
import { frames } from "../core/frames";
import { useEditor } from "./editing";
import { pressed } from "./pressed";

interface Props {
  children: ReactNode;
  /** What has its place until all is there, so that nothing below it comes and goes. */
  meanwhile?: ReactNode;
}

/**
 * For what has a place of its own whatever is in it: nothing may move when it comes.
 *
 * It is drawn between frames. Under a hand that draws with each of them it would be begun anew each
 * time, and come seconds later in one piece: it has its turn with one of them then.
 */
export function Later({ children, meanwhile = null }: Props) {
  const [now, setNow] = useState(false);
  useEffect(() => {
    if (now) return;
    const soon = setTimeout(() => startTransition(() => setNow(true)));
    let turn: (() => void) | undefined;
    const look = () => {
      if (pressed.get()) turn ??= inTurn(() => setNow(true));
    };
    look();
    const leave = pressed.subscribe(look);
    return () => {
      clearTimeout(soon);
      leave();
      turn?.();
    };
  }, [now]);
  return now ? children : meanwhile;
}

/** In the place of what would fill a panel. */
export const Space = () => <div aria-hidden="true" className="h-screen" />;

/**
 * The same for what comes as a hand takes hold of something: one that moves on is not held up. What
 * was let go of and waits for the server holds nothing back.
 */
export function LaterAtRest({ children, meanwhile = null }: Props) {
  const editor = useEditor();
  const [now, setNow] = useState(false);
  useEffect(() => {
    if (now) return;
    let soon: ReturnType<typeof setTimeout> | undefined;
    const look = () => {
      clearTimeout(soon);
      if (!pressed.get() && rests(editor.snapshot())) soon = setTimeout(() => setNow(true));
    };
    look();
    const leave = [editor.subscribe(look), pressed.subscribe(look)];
    return () => {
      for (const left of leave) left();
      clearTimeout(soon);
    };
  }, [editor, now]);
  return now ? children : meanwhile;
}

const rests = ({ doc, still, saved }: EditorState) => doc === still || saved !== "saved";

interface Turns extends Props {
  /** How many are there at once. */
  first?: number;
}

/**
 * Each in its turn: together they would not fit into one frame. Once all are there, what comes among
 * them is there at once.
 */
export function OneByOne({ children, meanwhile, first = 1 }: Turns) {
  const every = Children.toArray(children);
  const [there, setThere] = useState(first);
  const next = there < every.length ? there + 1 : Number.POSITIVE_INFINITY;
  useEffect(() => (there < next ? inTurn(() => setThere(next)) : undefined), [there, next]);
  return (
    <>
      {every.slice(0, there)}
      {there < every.length && meanwhile}
    </>
  );
}

/**
 * What somebody took hold of, once both drawings have it: the first is made ready with the frame
 * after the press, the other with the next, and what this draws comes after that.
 */
export function useTakenHold<T>(value: T): T {
  const [late, setLate] = useState(value);
  useEffect(() => afterFrames(3, () => setLate(value)), [value]);
  return late;
}

function afterFrames(count: number, run: () => void): () => void {
  let left = count;
  let leave = () => frames.drop(step);
  const step = () => {
    left -= 1;
    if (left > 0) frames.draw(step);
    else leave = inTurn(run);
  };
  frames.draw(step);
  return () => leave();
}

/** A value once it is its turn: what it changes takes much of a frame to draw. */
export function useInTurn<T>(value: T): T {
  const [shown, show] = useState(value);
  useEffect(() => inTurn(() => show(value)), [value]);
  return shown;
}

/** Drawn at once when it is its turn: else React draws it after that frame, which is laid out twice. */
function inTurn(change: () => void): () => void {
  const step = () => flushSync(change);
  frames.turn(step);
  return () => frames.drop(step);
}
