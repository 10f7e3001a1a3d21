/** The level lines of a drawn sum, and their words on top of the curves. */
interface Props {
  levels: readonly number[];
  y: (db: number) => number;
}

export function DbLines({ levels, y, width }: Props & { width: number }) {
  return levels.map((db) => (
    <line key={db} x1="0" x2={width} y1={y(db)} y2={y(db)} stroke="var(--hair)" strokeWidth="0.8" />
  ));
}

export function DbWords({ levels, y }: Props) {
  return levels.map((db) => (
    <text
      key={db}
      x={2}
      y={y(db) - 2}
      fontSize="8"
      className="num"
      fill="var(--soft)"
      stroke="var(--panel)"
      strokeWidth="2.5"
      paintOrder="stroke"
    >
      {db} dB
    </text>
  ));
}
