/** A verdict by shape, colour and word. */
import type { Verdict } from "../api/types";

const COLOUR: Record<Verdict, string> = {
  together: "var(--ring)",
  late: "var(--late)",
  hollow: "var(--hollow)",
  "ask the ear": "var(--ask)",
  behind: "var(--nomatter)",
  "no matter": "var(--nomatter)",
};

interface Props {
  verdict: Verdict;
  size?: number;
  /** Not among what is looked for. */
  faint?: boolean;
}

/** The shape alone; the word must stand beside it or be its label. */
export function Mark({ verdict, size = 14, faint }: Props) {
  const colour = COLOUR[verdict];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 14 14"
      aria-hidden="true"
      className={faint ? "shrink-0 opacity-15" : "shrink-0"}
    >
      {verdict === "together" && <circle cx="7" cy="7" r="5" fill={colour} />}
      {verdict === "late" && <path d="M7 0.8 13.2 7 7 13.2 0.8 7Z" fill={colour} />}
      {verdict === "hollow" && (
        <>
          <rect
            x="1.7"
            y="1.7"
            width="10.6"
            height="10.6"
            fill="none"
            stroke={colour}
            strokeWidth="1.6"
          />
          <path d="M1.7 12.3 12.3 1.7V12.3Z" fill={colour} />
        </>
      )}
      {verdict === "ask the ear" && (
        <circle cx="7" cy="7" r="5" fill="none" stroke={colour} strokeWidth="1.7" />
      )}
      {verdict === "behind" && (
        <>
          <circle cx="4" cy="7" r="1.9" fill={colour} />
          <path d="M8.4 3.2A5.4 5.4 0 0 1 8.4 10.8" fill="none" stroke={colour} strokeWidth="1.5" />
        </>
      )}
      {verdict === "no matter" && <circle cx="7" cy="7" r="1.9" fill={colour} />}
    </svg>
  );
}

const TEXT: Record<Verdict, string> = {
  together: "text-ring",
  late: "text-latetext",
  hollow: "text-hollow",
  "ask the ear": "text-ask",
  behind: "text-soft",
  "no matter": "text-soft",
};

/** Shape and word. */
export function VerdictWord({ verdict }: { verdict: Verdict }) {
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold ${TEXT[verdict]}`}>
      <Mark verdict={verdict} />
      {verdict}
    </span>
  );
}
