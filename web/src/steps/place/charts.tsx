/** The charts and tapes of Place as they are under the hand; the rest of the step stands still. */
import { memo, useMemo } from "react";
import type { Board } from "../../api/types";
import type { EditorState } from "../../core/editor";
import { reach } from "../../core/reach";
import { sameParts } from "../../core/same";
import type { Ruler } from "../../core/units";
import type { View } from "../../core/view";
import { Planned } from "../../parts/atkit/Planned";
import { Chart } from "../../parts/chart/Chart";
import { placesOf } from "../../parts/chart/cuts";
import { Loci, PairLines } from "../../parts/chart/Loci";
import type { ChartProps } from "../../parts/chart/look";
import type { FollowFlag } from "../../parts/curves/flagHand";
import { TAPES_HIGH, Tapes } from "../../parts/curves/Tapes";
import {
  useCalmPart,
  useEditor,
  useEditorPart,
  useHovered,
  useLit,
  useSelected,
} from "../../parts/editing";
import { useInTurn } from "../../parts/Later";
import { useMe } from "../../parts/me";
import { useMicHands } from "./micHands";

/** The same list as long as the same mics glow, so that nothing is drawn anew for it. */
function useGlow(ids: (string | null | undefined)[]): string[] {
  const key = [...new Set(ids.filter(Boolean))].sort().join(" ");
  return useMemo(() => key.split(" ").filter(Boolean), [key]);
}

type ChartLook = Pick<ChartProps, "title" | "hint" | "facing" | "tools"> & {
  /** Mics of the technique that is open. */
  together: string[];
};

/** The layout and the board of the drawings: while the hand moves a mic, as they were before. */
function useDrawn() {
  const layout = useEditorPart((s) => (s.underHand ? s.still : s.doc));
  const board = useEditorPart((s) => (s.underHand ? s.whole : s.board));
  const blocked = useEditorPart((s) => s.board?.blocked);
  const shown = useMemo(() => board && { ...board, blocked: blocked ?? {} }, [board, blocked]);
  return { layout, board: shown };
}

export function LiveChart({ together, ...look }: ChartLook) {
  const editor = useEditor();
  const { layout, board } = useDrawn();
  const still = useEditorPart((s) => s.still);
  const ruler: Ruler = useMe();
  const lit = useLit();
  const pair = together.length ? together : [board?.focus?.a, board?.focus?.b];
  const glow = useGlow([useHovered(), useSelected(), ...pair]);
  const hands = useMicHands();
  const fresh = useMemo(() => {
    const there = new Set(still.mics.map((m) => m.id));
    return layout.mics.map((m) => m.id).filter((id) => !there.has(id));
  }, [layout.mics, still.mics]);
  return (
    <Chart
      {...look}
      {...hands}
      fresh={fresh}
      layout={layout}
      board={board}
      ruler={ruler}
      side={lit.side}
      lit={glow}
      onSelect={lit.select}
      onHover={lit.hover}
      watch={editor.following.watch}
      lain={lain}
    />
  );
}

const lain = (view: View) => (
  <>
    <LiveLoci view={view} />
    <LiveLines view={view} />
    <Planned view={view} />
  </>
);

/** Ring and spheres: drawn anew where an answer changes them; the ring stands while its mic does. */
const LiveLoci = memo(function LiveLoci({ view }: { view: View }) {
  const layout = useEditorPart((s) => (s.underHand ? s.still : s.doc));
  const places = useEditorPart((s) => placesOf(s.board, s.doc), sameParts);
  const ruler: Ruler = useMe();
  return <Loci {...{ view, layout, places, ruler }} />;
});

/** Under a hand the drawing shows others in their place, which go with the mic at every frame. */
const LiveLines = memo(function LiveLines({ view }: { view: View }) {
  const { layout, board } = useDrawn();
  const places = useMemo(() => placesOf(board, layout), [board, layout]);
  return <PairLines {...{ view, layout, places }} />;
});

/** Under a hand the tapes stand, and its flags go along them. */
const onTapes = ({ board, whole, underHand }: EditorState): Board | null =>
  underHand && whole ? whole : board;

/** Their place before they are drawn. */
export const TapesSpace = () => <div style={{ height: TAPES_HIGH }} />;

export function LiveTapes() {
  const layout = useEditorPart((s) =>
    s.doc.mics.length === s.still.mics.length ? s.still : s.doc,
  );
  const board = useCalmPart(onTapes);
  const far = useEditorPart(useMemo(reach, []));
  // Longer tapes are much to draw: the number that asked for them comes first.
  const end = useInTurn(far) || far;
  const ruler: Ruler = useMe();
  const lit = useLit();
  const follow = useTapeHand();
  const glow = useInTurn(useGlow([useHovered(), useSelected(), board?.focus?.a, board?.focus?.b]));
  if (!board) return <TapesSpace />;
  return (
    <Tapes
      layout={layout}
      board={board}
      end={end}
      ruler={ruler}
      lit={glow}
      follow={follow}
      onHover={lit.hover}
      onSelect={lit.select}
    />
  );
}

/** Told of with every answer: the mic under the hand, and after that the one that was. */
function useTapeHand(): FollowFlag {
  const editor = useEditor();
  return useMemo(() => {
    let held: string | null = null;
    return (place) => {
      const tell = () => {
        const { underHand, board } = editor.snapshot();
        held = underHand ?? held;
        if (held && board) place(held, board, underHand !== null);
      };
      tell();
      return editor.subscribe(tell);
    };
  }, [editor]);
}
