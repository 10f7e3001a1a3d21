/** Techniques: those in use, and the list to take one from. */
import { useState } from "react";
import type { Technique } from "../../../api/types";
import { found, targetNames } from "../../../core/techniques";
import { useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { Draft } from "./Draft";
import { useStanding, useTechniques } from "./data";
import { Opened } from "./Opened";

const GROUPS = [
  "One mic",
  "Two and three",
  "Overheads",
  "Kick",
  "Snare",
  "Toms",
  "Hats and cymbals",
  "Room",
  "Oddities",
];

interface Props {
  opened: string | null;
  open: (id: string | null) => void;
  onWhatIf: () => void;
}

export function TechniquePanel({ opened, open, onWhatIf }: Props) {
  const [trying, setTrying] = useState<string | null>(null);
  const list = useTechniques();
  const standing = useStanding();
  const technique = list.data?.find((t) => t.id === trying);
  const row = standing.data?.find((s) => s.id === opened);
  if (technique)
    return (
      <Draft
        key={technique.id}
        technique={technique}
        onBack={() => setTrying(null)}
        onTaken={(id) => {
          setTrying(null);
          open(id);
        }}
      />
    );
  if (row)
    return (
      <Opened
        key={row.id}
        row={row}
        technique={list.data?.find((t) => t.id === row.technique)}
        onBack={() => open(null)}
        onWhatIf={onWhatIf}
      />
    );
  return (
    <div className="space-y-4">
      <InUse onOpen={open} />
      <List all={list.data ?? []} onTry={setTrying} />
    </div>
  );
}

function InUse({ onOpen }: { onOpen: (id: string) => void }) {
  const rows = useStanding().data ?? [];
  const names = targetNames(useEditorPart((s) => s.still));
  if (!rows.length) return null;
  return (
    <section aria-label="Techniques in use">
      <h2 className="mb-1 text-[1.05rem]">In use</h2>
      <ul className="divide-y divide-hair">
        {rows.map((r) => (
          <li key={r.id}>
            <button
              type="button"
              data-taken={r.id}
              className="flex w-full items-baseline gap-2 py-1 text-left text-[0.88rem] hover:bg-tint"
              onClick={() => onOpen(r.id)}
            >
              <span className="min-w-0 flex-1">
                <span className="font-semibold">{r.name}</span>
                {r.target && <span className="text-soft">, {names[r.target] ?? r.target}</span>}
                {r.off.length > 0 && <span className="text-latetext"> off its numbers</span>}
              </span>
              <span className="num text-[0.78rem] text-soft">{r.mics.join(" ")}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function List({ all, onTry }: { all: Technique[]; onTry: (id: string) => void }) {
  const [words, setWords] = useState("");
  const [group, setGroup] = useState("");
  const rows = found(all, words, group);
  return (
    <section aria-label="Techniques">
      <h2 className="mb-1 text-[1.05rem]">Take a technique</h2>
      <div className="grid grid-cols-2 gap-2">
        <label className="block">
          <span className="text-[0.8rem] text-soft">Search</span>
          <input
            className="field w-full"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            placeholder="turned, wires"
          />
        </label>
        <Pick
          label="Kind"
          value={group}
          options={["", ...GROUPS]}
          names={{ "": "all" }}
          onTake={setGroup}
        />
      </div>
      <ul className="mt-2" aria-label="Found techniques">
        {rows.map((t, i) => (
          <Found key={t.id} row={t} head={t.group !== rows[i - 1]?.group} onTry={onTry} />
        ))}
      </ul>
      {all.length > 0 && rows.length === 0 && (
        <p className="mt-2 text-[0.88rem] text-soft">
          Nothing by these words. Try a drum, a room, or what it should give.
        </p>
      )}
    </section>
  );
}

function Found(props: { row: Technique; head: boolean; onTry: (id: string) => void }) {
  const { row: t, head, onTry } = props;
  return (
    <li>
      {head && <p className="mt-2 text-[0.78rem] font-bold text-soft">{t.group}</p>}
      <button
        type="button"
        data-technique={t.id}
        disabled={Boolean(t.lacks)}
        className="flex w-full items-baseline gap-2 rounded-md px-1 py-0.5 text-left text-[0.88rem] enabled:hover:bg-tint disabled:text-soft"
        onClick={() => onTry(t.id)}
      >
        <span className="min-w-0 flex-1">
          {t.name}
          {t.lacks && <span className="block text-[0.78rem]">{t.lacks}</span>}
        </span>
        <span className="num whitespace-nowrap text-[0.78rem] text-soft">
          {t.mics} {t.mics === 1 ? "mic" : "mics"}, {Math.round(t.minutes)} min
        </span>
      </button>
    </li>
  );
}
