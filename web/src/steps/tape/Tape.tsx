/** At the kit with a tape: what to put up, what to read, and where everything stands by it. */
import { type Dispatch, type SetStateAction, useState } from "react";
import type { AskRow } from "../../api/types";
import { dealtWith, sameSpan } from "../../core/kitlog";
import { type AtKitLog, useAtKit } from "../../parts/atkit/log";
import { type Order, type Stands as Stood, useStands } from "../../parts/atkit/stands";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { NoMics } from "../../parts/NoMics";
import { ArcHelp } from "./ArcHelp";
import { AskList } from "./AskList";
import { ByCord } from "./ByCord";
import { MeterDialog } from "./MeterDialog";
import { Reading } from "./Reading";
import { SetUp } from "./SetUp";
import { Stands } from "./Stands";
import { useWakeLock } from "./useWakeLock";

type View = "set up" | "read" | "stands";

const VIEWS = [
  ["set up", "Set up"],
  ["read", "Read"],
  ["stands", "As it stands"],
] as const;

export function Tape() {
  const mics = useEditorPart((s) => s.still.mics.length);
  if (!mics) return <NoMics words="Nothing to measure yet." />;
  return <AtTheKit />;
}

function AtTheKit() {
  useWakeLock();
  const kit = useAtKit();
  const [order, setOrder] = useState<Order>("overheads first");
  const stood = useStands(kit.log, order);
  const [view, setView] = useState<View>("read");
  const [asked, ask] = useState<number | null>(null);
  const asks = stood.answer?.standing.asks ?? [];
  const read = (mic: string, to: string | null) => {
    const at = asks.findIndex((a) => sameSpan({ mic, to }, a));
    ask(at < 0 ? null : at);
    setView("read");
  };
  return (
    <div className="h-full overflow-y-auto bg-panel" data-at-kit={view}>
      <h1 className="sr-only">Tape</h1>
      <div className="mx-auto max-w-[1100px] space-y-3 p-3">
        <div className="flex flex-wrap items-center justify-between gap-2">
          <Segmented label="What to do" value={view} options={VIEWS} onTake={setView} />
          <Progress stood={stood} kit={kit} />
        </div>
        {stood.error && !stood.answer && <p role="alert">{stood.error.message}</p>}
        {!stood.answer && !stood.error && <p className="text-soft">Looking at the kit…</p>}
        {stood.answer && view === "set up" && (
          <SetUp setup={stood.answer.setup} kit={kit} onOrder={setOrder} />
        )}
        {stood.answer && view === "read" && <Read {...{ stood, kit, asked, ask }} />}
        {stood.answer && view === "stands" && (
          <Stands answer={stood.answer} current={stood.current} kit={kit} onRead={read} />
        )}
      </div>
    </div>
  );
}

/** How many readings are taken, and how many of what was written are not sent yet. */
function Progress({ stood, kit }: { stood: Stood; kit: AtKitLog }) {
  const standing = stood.answer?.standing;
  if (!standing) return null;
  const done = dealtWith(standing.asks, stood.fresh);
  const open = (n: number) => ["to read", "again"].includes(standing.asks[n]?.state ?? "");
  const fresh = [...done].filter(open).length;
  const read = standing.read + fresh;
  return (
    <p className="flex items-center gap-2 text-[0.9rem] text-soft" data-read={read}>
      <span>
        {read} of {standing.wanted} read
      </span>
      <span className="h-2 w-20 overflow-hidden rounded-full bg-hair" aria-hidden="true">
        <span
          className="block h-full bg-ring"
          style={{ width: `${(100 * read) / Math.max(standing.wanted, 1)}%` }}
        />
      </span>
      {kit.waiting.size > 0 && (
        <span className="font-semibold text-latetext" data-waiting={kit.waiting.size}>
          {kit.waiting.size} kept here, not sent yet
        </span>
      )}
    </p>
  );
}

/** Of the first of a pair: the second, where the two are kept equal to the same end. */
const followed = (asks: readonly AskRow[], first: AskRow) =>
  asks.find((a) => a.cord?.like === first.mic && a.to === first.to);

interface ReadProps {
  stood: Stood;
  kit: AtKitLog;
  asked: number | null;
  ask: Dispatch<SetStateAction<number | null>>;
}

function Read({ stood, kit, asked, ask }: ReadProps) {
  const asks = stood.answer?.standing.asks ?? [];
  const at = asked ?? stood.next;
  const now = at === null ? undefined : asks[at];
  const [byCord, setByCord] = useState(false);
  const second = now && followed(asks, now);
  const onDone = () => ask((n) => (n === at ? null : n));
  const onCord = now?.cord || second ? () => setByCord(!byCord) : undefined;
  return (
    <div className="grid gap-4 min-[760px]:grid-cols-[minmax(0,400px)_minmax(0,1fr)]">
      {now && byCord && onCord ? (
        <ByCord
          key={`${now.mic} ${now.to ?? "ground"}`}
          {...{ ask: now, second, kit, onCord, onDone }}
          onStay={() => ask(at)}
        />
      ) : now ? (
        <Reading
          key={`${now.mic} ${now.to ?? "ground"}`}
          {...{ ask: now, current: stood.current, kit, onCord, onDone }}
          onStay={() => ask(at)}
        />
      ) : (
        <p className="py-4 text-[1.05rem]" data-all-read>
          All readings are taken or left. See how it stands.
        </p>
      )}
      <div>
        <AskList asks={asks} chosen={at} here={dealtWith(asks, stood.fresh)} onChoose={ask} />
        <div className="mt-2 flex flex-wrap gap-x-5">
          <MeterDialog />
          {now && <ArcHelp mic={now.mic} />}
        </div>
      </div>
    </div>
  );
}
