/** Readings of the session that this layout does not stand on: taken in together, or left. */
import { useElsewhere } from "./useTape";

const ROWS_TOLD = 3;
const FEW: Record<number, string> = { 1: "it", 2: "both" };

export function Elsewhere({ name }: { name: (id: string | null) => string }) {
  const { rows, takeIn } = useElsewhere();
  if (!rows.length) return null;
  const told = rows.slice(0, ROWS_TOLD).map((r) => `${name(r.a)} – ${name(r.b)} by ${r.by}`);
  const more = rows.length - told.length;
  return (
    <div className="mb-2 flex items-center gap-3 text-[0.84rem]" data-elsewhere>
      <p className="min-w-0 flex-1">
        Read at this kit, but not in this layout: {told.join("; ")}
        {more > 0 && ` and ${more} more`}.
      </p>
      <button
        type="button"
        className="btn shrink-0 px-2 py-1"
        disabled={takeIn.isPending}
        onClick={() => takeIn.mutate()}
      >
        Take {FEW[rows.length] ?? `all ${rows.length}`} in
      </button>
    </div>
  );
}
