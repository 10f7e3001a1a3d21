/** A plug under the hand or the keys: into a socket, out of it, and the tracks in their order. */
import { type KeyboardEvent, type PointerEvent, type RefObject, useRef, useState } from "react";
import type { Channel } from "../../api/types";
import { type Box, nextFree, pluggedInto, reordered } from "../../core/patchbay";
import { useEditorPart } from "../../parts/editing";
import { useTake } from "../../parts/hands";

export interface Plug {
  paper: RefObject<HTMLDivElement | null>;
  held: { id: string; x: number; y: number } | null;
  /** The socket under it. */
  over: number | null;
  grip: (id: string) => {
    onPointerDown: (e: PointerEvent) => void;
    onPointerMove: (e: PointerEvent) => void;
    onPointerUp: (e: PointerEvent) => void;
    onPointerCancel: () => void;
  };
  put: (id: string, input: number | null) => void;
  choose: (id: string) => void;
  key: (e: KeyboardEvent, channel: Channel) => void;
}

/** A hand that has moved less has only pointed. */
const LEAST_PX = 5;

function socketAt(e: PointerEvent): number | null {
  const under = document.elementsFromPoint(e.clientX, e.clientY);
  const socket = under.find((x) => x instanceof HTMLElement && x.dataset.socket);
  return socket instanceof HTMLElement ? Number(socket.dataset.socket) : null;
}

export function usePlug(boxes: readonly Box[], choose: (id: string) => void): Plug {
  const doc = useEditorPart((s) => s.still);
  const take = useTake();
  const paper = useRef<HTMLDivElement>(null);
  const start = useRef<{ x: number; y: number } | null>(null);
  const [held, setHeld] = useState<Plug["held"]>(null);
  const [over, setOver] = useState<number | null>(null);
  const put = (id: string, input: number | null) => {
    const channels = pluggedInto(doc, id, input);
    if (channels.length) void take({ do: "channels", channels, why: wordsOf(channels) });
  };
  const letGo = () => {
    start.current = null;
    setHeld(null);
    setOver(null);
  };
  const grip: Plug["grip"] = (id) => ({
    onPointerDown: (e) => {
      if (e.button !== 0) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      start.current = { x: e.clientX, y: e.clientY };
      choose(id);
    },
    onPointerMove: (e) => {
      const from = start.current;
      const box = paper.current?.getBoundingClientRect();
      if (!from || !box) return;
      if (!held && Math.hypot(e.clientX - from.x, e.clientY - from.y) < LEAST_PX) return;
      setHeld({ id, x: e.clientX - box.left, y: e.clientY - box.top });
      setOver(socketAt(e));
    },
    onPointerUp: (e) => {
      const there = held && socketAt(e);
      letGo();
      if (there) put(id, there);
    },
    onPointerCancel: letGo,
  });
  const key = (e: KeyboardEvent, channel: Channel) => {
    const all = doc.channels ?? [];
    const way = KEYS[e.key];
    const to = way && nextFree(boxes, all, channel.input, way);
    if (e.altKey && ORDER[e.key]) {
      void take({ do: "tracks", order: reordered(all, channel.id, ORDER[e.key] ?? 1) });
    } else if (to) put(channel.id, to);
    else if (e.key === "Delete" || e.key === "Backspace") put(channel.id, null);
    else if (ORDER[e.key]) neighbour(e, ORDER[e.key] ?? 1);
    else return;
    e.preventDefault();
  };
  return { paper, held, over, grip, put, choose, key };
}

const KEYS: Record<string, 1 | -1> = { ArrowRight: 1, ArrowLeft: -1 };
const ORDER: Record<string, 1 | -1> = { ArrowDown: 1, ArrowUp: -1 };

/** The track below or above gets the keys. */
function neighbour(e: KeyboardEvent, by: 1 | -1): void {
  const all = [...document.querySelectorAll<HTMLElement>("[data-track]")];
  all[all.indexOf(e.currentTarget as HTMLElement) + by]?.focus();
}

function wordsOf(channels: readonly Channel[]): string {
  const [moved, other] = channels;
  if (!moved || !other) return "";
  return `${moved.id} into input ${moved.input}, ${other.id} ${other.input ? `into ${other.input}` : "out"}`;
}
