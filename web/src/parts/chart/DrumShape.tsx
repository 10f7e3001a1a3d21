/** Drums and cymbals to scale in any view: the outline of the body and the struck face. */
import { memo } from "react";
import type { Cymbal, Drum } from "../../api/types";
import { disc, outline, type Point3, path, toScreen, type View } from "../../core/view";

function behind(p: Point3, axis: Point3, by: number): Point3 {
  return [p[0] - axis[0] * by, p[1] - axis[1] * by, p[2] - axis[2] * by];
}

/** The middle of the hole: to the drummer's right and up on the far head. */
function portCentre(drum: Drum, back: Point3): Point3 {
  const [ax, ay] = drum.axis;
  const flat = Math.hypot(ax, ay) || 1;
  const [right, up] = [drum.port?.right_m ?? 0, drum.port?.up_m ?? 0];
  return [back[0] - (ay / flat) * right, back[1] + (ax / flat) * right, back[2] + up];
}

/** The ends of a snare's wires, just short of the rim. */
export function wires(drum: Drum): [Point3, Point3] {
  const [x, y, z] = drum.batter_m;
  const [turn, r] = [drum.wires_rad ?? 0, drum.diameter_m * 0.44];
  const [dx, dy] = [Math.cos(turn) * r, Math.sin(turn) * r];
  return [
    [x - dx, y - dy, z],
    [x + dx, y + dy, z],
  ];
}

export const DrumShape = memo(function DrumShape({ drum, view }: { drum: Drum; view: View }) {
  const screen = (p: Point3) => toScreen(p, view);
  const back = behind(drum.batter_m, drum.axis, drum.depth_m);
  const r = drum.diameter_m / 2;
  const face = disc(drum.batter_m, drum.axis, r).map(screen);
  const rear = disc(back, drum.axis, r).map(screen);
  const hoop = disc(drum.batter_m, drum.axis, r * 0.93).map(screen);
  const edge = (points: typeof face) => path(outline(points));
  const port = drum.port && portCentre(drum, back);
  return (
    <g aria-hidden="true">
      <path
        d={edge([...face, ...rear])}
        fill="var(--shell)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      <path d={edge(rear)} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d={edge(face)} fill="var(--shell)" stroke="var(--ink)" strokeWidth="2.2" />
      <path d={edge(hoop)} fill="none" stroke="var(--hair)" strokeWidth="1" />
      {drum.wires_rad != null && view.facing === "above" && (
        <path
          d={path(wires(drum).map(screen), false)}
          stroke="var(--snare)"
          strokeWidth="2.5"
          strokeDasharray="7 2"
          fill="none"
        />
      )}
      {drum.port && port && (
        <path
          d={edge(disc(port, drum.axis, drum.port.diameter_m / 2).map(screen))}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1"
          strokeDasharray="2 2"
        />
      )}
    </g>
  );
});

export const CymbalShape = memo(function CymbalShape(props: { cymbal: Cymbal; view: View }) {
  const { cymbal, view } = props;
  const screen = (p: Point3) => toScreen(p, view);
  const r = cymbal.diameter_m / 2;
  const rim = outline(disc(cymbal.centre_m, cymbal.axis, r).map(screen));
  const bell = outline(
    [
      ...disc(cymbal.centre_m, cymbal.axis, r * 0.2),
      behind(cymbal.centre_m, cymbal.axis, -0.018),
    ].map(screen),
  );
  const [x, y] = screen(cymbal.centre_m);
  const foot = screen([cymbal.centre_m[0], cymbal.centre_m[1], 0]);
  return (
    <g aria-hidden="true" stroke="var(--brass)">
      {view.facing !== "above" && (
        <line x1={x} y1={y} x2={foot[0]} y2={foot[1]} strokeWidth="2.5" strokeOpacity="0.35" />
      )}
      <path d={path(rim)} fill="var(--brass)" fillOpacity="0.14" strokeWidth="1.3" />
      <path d={path(bell)} fill="var(--brass)" fillOpacity="0.5" strokeWidth="1" />
    </g>
  );
});
