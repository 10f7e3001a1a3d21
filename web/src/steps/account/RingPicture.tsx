/** Two drums, a line between them, and the ring of equal spots round that line. */
export function RingPicture() {
  return (
    <svg viewBox="0 0 420 420" className="w-full max-w-lg">
      <g fill="none" stroke="var(--hair)">
        <path d="M0 105H420M0 210H420M0 315H420M105 0V420M210 0V420M315 0V420" />
      </g>
      <ellipse
        cx="205"
        cy="205"
        rx="172"
        ry="92"
        transform="rotate(-38 205 205)"
        fill="none"
        stroke="var(--ring)"
        strokeWidth="4"
        strokeDasharray="300 12 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 600"
      />
      <rect
        x="205"
        y="120"
        width="92"
        height="72"
        rx="3"
        fill="var(--shell)"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
      <circle cx="178" cy="236" r="34" fill="var(--shell)" stroke="var(--ink)" strokeWidth="2.5" />
      <path d="M88 120 178 236 332 272" fill="none" stroke="var(--snare)" strokeWidth="2" />
      <path
        d="M88 120 251 192 332 272"
        fill="none"
        stroke="var(--kick)"
        strokeWidth="2"
        strokeDasharray="6 4"
      />
      <circle cx="178" cy="236" r="6" fill="var(--snare)" />
      <rect x="245" y="186" width="12" height="12" fill="var(--kick)" />
      <g fill="var(--ring)">
        <circle cx="88" cy="120" r="9" />
        <circle cx="332" cy="272" r="9" />
      </g>
    </svg>
  );
}
