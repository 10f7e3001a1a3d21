/** The takes of the layout, with what of them has come, and forgetting one. */
import { useRef, useState } from "react";
import type { Take } from "../../api/types";
import { megabytes } from "../../core/bytes";
import { dayAndHour } from "../../core/moments";
import { Ask } from "../../parts/Ask";
import type { Sending } from "./useSending";
import { type TakesHere, whole } from "./useTakes";

interface Props {
  takes: TakesHere;
  sending: Sending;
  chosen: number | null;
  choose: (take: number) => void;
}

export function TakeList({ takes, sending, chosen, choose }: Props) {
  const [gone, setGone] = useState<Take | null>(null);
  const every = takes.found.data?.takes ?? [];
  if (!every.length) return <p className="text-soft">No take yet.</p>;
  return (
    <>
      <ul aria-label="Takes" className="space-y-1">
        {every.map((t) => (
          <li key={t.id} data-take={t.id} className={`rounded-lg p-2 ${look(t.id === chosen)}`}>
            <button
              type="button"
              className="w-full text-left"
              aria-current={t.id === chosen}
              onClick={() => choose(t.id)}
            >
              <b className="block truncate">{t.name}</b>
              <span className="text-[0.82rem] text-soft">
                {dayAndHour(t.made_at)}, {t.files.length} {t.files.length === 1 ? "file" : "files"}
              </span>
            </button>
            <p className="flex flex-wrap gap-2 text-[0.82rem]">
              {!whole(t) && sending.on?.take !== t.id && <GoOn take={t} sending={sending} />}
              {whole(t) && (
                <a className="underline" href={`/api/takes/${t.id}/files.zip`} download>
                  Download
                </a>
              )}
              <button type="button" className="underline" onClick={() => setGone(t)}>
                Delete
              </button>
            </p>
          </li>
        ))}
      </ul>
      <Forgetting take={gone} takes={takes} onEnd={() => setGone(null)} />
    </>
  );
}

const look = (on: boolean) => (on ? "bg-card outline outline-ink" : "hover:bg-card");

/**
 * A take that did not come whole, or whose studio was read in without its sound: the same files
 * chosen again go on where it ended.
 */
function GoOn({ take, sending }: { take: Take; sending: Sending }) {
  const input = useRef<HTMLInputElement>(null);
  const there = take.files.reduce((n, f) => n + f.received, 0);
  const of = take.files.reduce((n, f) => n + f.size, 0);
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        className="hidden"
        aria-label={`The files of ${take.name} again`}
        onChange={(e) => {
          void sending.start([...(e.target.files ?? [])], take);
          e.target.value = "";
        }}
      />
      <span className="text-latetext">
        {there ? `${megabytes(there)} of ${megabytes(of)} came` : "Its sound is not here"}
      </span>
      <button type="button" className="underline" onClick={() => input.current?.click()}>
        {there ? "Send the rest" : "Give it its files"}
      </button>
    </>
  );
}

function Forgetting(props: { take: Take | null; takes: TakesHere; onEnd: () => void }) {
  const { take, takes, onEnd } = props;
  return (
    <Ask
      open={take !== null}
      onClose={onEnd}
      title={`Delete ${take?.name ?? ""}?`}
      about="Its sound files go with it, for good. The files on your own disk stay."
    >
      <button
        type="button"
        className="btn-main"
        onClick={() => {
          if (take) takes.forget.mutate(take.id);
          onEnd();
        }}
      >
        Delete it
      </button>
    </Ask>
  );
}
