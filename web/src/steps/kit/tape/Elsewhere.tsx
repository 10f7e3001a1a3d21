/** Readings of the session that this layout does not stand on: taken in together, or left. */
import { useElsewhere } from "./useTape";

const ROWS_TOLD = 3;

export function Elsewhere({ name }: { name: (id: string | null) => string }) {
  const { rows, takeIn } = useElsewhere();
  if (!rows.length) return null;
  const told = rows.slice(0, ROWS_TOLD).map((r) => `${name(r.a)} – ${name(r.b)} by ${r.by}`);
  const more = rows.length - told.length;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2 text-[0.84rem]" data-elsewhere>
      <p>
        Read at this kit, but not in this layout: {told.join("; ")}
        {more > 0 && ` and ${more} more`}.
      </p>
      <button
        type="button"
        className="btn px-2 py-1"
        disabled={takeIn.isPending}
        onClick={() => takeIn.mutate()}
      >
        Take {rows.length === 1 ? "it" : `all ${rows.length}`} in
      </button>
    </div>
  );
}
