/** One session: what can be done with it, and its layouts as drawings. */
import { useQuery } from "@tanstack/react-query";
import { Ellipsis } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { api, must } from "../../api/client";
import type { SessionOut } from "../../api/types";
import { micsInWords } from "../../core/words";
import { ITEM, MENU } from "../../parts/AccountMenu";
import { Sketch } from "../../parts/chart/Sketch";
import { VerdictCounts } from "../../parts/VerdictCounts";
import { useLength } from "./lengths";

interface Props {
  session: SessionOut;
  onRename: () => void;
  onCopy: () => void;
  onDelete: () => void;
}

export function OneSession(props: Props) {
  const [all, setAll] = useState(false);
  const whole = useQuery({
    queryKey: ["session", props.session.id],
    queryFn: () =>
      must(api.GET("/api/sessions/{pk}", { params: { path: { pk: props.session.id } } })),
    enabled: all,
  });
  const session = (all && whole.data) || props.session;
  const more = session.layouts_in_all - session.layouts.length;
  return (
    <li className="rounded-card border border-hair bg-panel p-4" data-session={session.name}>
      <div className="flex items-baseline gap-3">
        <h2 className="text-lg">{session.name}</h2>
        <span className="text-soft">
          {session.place}
          {session.place && " · "}
          {session.studio}
        </span>
        <SessionMenu {...props} />
      </div>
      <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-3">
        {session.layouts.map((l) => (
          <li key={l.id}>
            <LayoutCard layout={l} />
          </li>
        ))}
      </ul>
      {more > 0 && (
        <button
          type="button"
          className="btn mt-3"
          disabled={whole.isFetching}
          onClick={() => setAll(true)}
        >
          Show {more} more layouts
        </button>
      )}
    </li>
  );
}

function LayoutCard({ layout }: { layout: SessionOut["layouts"][number] }) {
  const { id, name, summary } = layout;
  const lines = useLength(layout);
  if (!summary) return <NotRead layout={layout} />;
  return (
    <Link
      to={`/layouts/${id}/place`}
      className="block rounded-card border border-hair bg-card p-3 hover:border-soft"
    >
      <Sketch summary={summary} name={name} />
      <p className="my-1.5 font-semibold">
        {name} <span className="font-normal text-soft">{micsInWords(summary.mics.length)}</span>
        {lines !== null && (
          <span className="float-right font-normal" data-to-do={lines}>
            {lines ? `${lines} to do` : "nothing to do"}
          </span>
        )}
      </p>
      <VerdictCounts counts={summary.counts} />
    </Link>
  );
}

/** What this version cannot read stands beside the others and can be carried away as it is. */
function NotRead({ layout }: { layout: SessionOut["layouts"][number] }) {
  return (
    <div className="rounded-card border border-hair bg-card p-3">
      <p className="font-semibold">{layout.name}</p>
      <p className="my-1.5 text-[0.88rem] text-soft">{layout.why_not}</p>
      <p className="flex gap-3 text-[0.88rem]">
        <Link className="underline" to={`/layouts/${layout.id}/place`}>
          Open it
        </Link>
        <a className="underline" href={`/api/layouts/${layout.id}/file`}>
          Download it as it is
        </a>
      </p>
    </div>
  );
}

function SessionMenu({ session, onRename, onCopy, onDelete }: Props) {
  const rows = [
    ["Rename", onRename],
    ["Copy", onCopy],
    ["Delete", onDelete],
  ] as const;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="btn ml-auto px-2 py-1"
        aria-label={`More for ${session.name}`}
      >
        <Ellipsis size={18} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={4}>
          {rows.map(([words, run]) => (
            <DropdownMenu.Item key={words} className={ITEM} onSelect={run}>
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
