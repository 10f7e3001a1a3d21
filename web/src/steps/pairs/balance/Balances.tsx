/** The named balances of a layout: one is current, and everything is judged under it. */
import { useState } from "react";
import { Ask } from "../../../parts/Ask";
import { useEditorPart } from "../../../parts/editing";
import { Segmented } from "../../../parts/fields/Segmented";
import { NameField } from "../../../parts/fields/typed";
import { useTake } from "../../../parts/hands";

const USUAL = "usual balance";

export function Balances() {
  const balances = useEditorPart((s) => s.still.balances) ?? [];
  const current = useEditorPart((s) => s.still.current) ?? null;
  const [asking, setAsking] = useState<"new" | "name" | null>(null);
  const take = useTake();
  const now = balances.find((b) => b.id === current);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Segmented
        small
        label="Balance"
        value={current ?? USUAL}
        options={[[USUAL, "Usual"], ...balances.map((b) => [b.id, b.name] as const)]}
        onTake={(id) => void take({ do: "use-balance", id: id === USUAL ? null : id })}
      />
      <button
        type="button"
        className="btn px-2 py-1 text-[0.8rem]"
        onClick={() => setAsking("new")}
      >
        New balance
      </button>
      {now && <Current id={now.id} onRename={() => setAsking("name")} />}
      <Naming
        asking={asking}
        was={now?.name ?? ""}
        onDone={(name) => {
          setAsking(null);
          if (name && asking === "new") void take({ do: "add-balance", name });
          if (name && asking === "name" && now) void take({ do: "name-balance", id: now.id, name });
        }}
      />
    </div>
  );
}

function Current({ id, onRename }: { id: string; onRename: () => void }) {
  const take = useTake();
  return (
    <>
      <button type="button" className="btn px-2 py-1 text-[0.8rem]" onClick={onRename}>
        Rename
      </button>
      <button
        type="button"
        className="btn px-2 py-1 text-[0.8rem]"
        onClick={() => void take({ do: "remove-balance", id })}
      >
        Take away
      </button>
    </>
  );
}

function Naming(props: {
  asking: "new" | "name" | null;
  was: string;
  onDone: (name: string | null) => void;
}) {
  const { asking, was, onDone } = props;
  return (
    <Ask
      open={asking !== null}
      onClose={() => onDone(null)}
      title={asking === "new" ? "A new balance" : "Rename the balance"}
      about={asking === "new" ? "It begins like the one you are in." : undefined}
    >
      <NameField
        label="Name, then Enter"
        value={asking === "name" ? was : ""}
        onTake={(name) => onDone(name)}
      />
    </Ask>
  );
}
