/** Hear a pair on a drum: each alone, summed three ways, switched without a gap, and blind. */
import { useEffect, useMemo, useRef, useState } from "react";
import { api, exactly, must } from "../../api/client";
import type { Example, PairRow } from "../../api/types";
import { answered, type Blind, begun, verdictOf } from "../../core/blind";
import { Player } from "../../core/player";
import { Ask } from "../../parts/Ask";
import { useEditor } from "../../parts/editing";

type Version = Example["versions"][number];
type Two = { A: Version; B: Version };

export function HearIt({ row, drum }: { row: PairRow; drum: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="btn px-2.5 py-1 text-[0.84rem]"
        onClick={() => setOpen(true)}
      >
        Hear it
      </button>
      <Ask
        open={open}
        wide
        onClose={() => setOpen(false)}
        title={`${row.a} and ${row.b} on the ${drum.toLowerCase()}`}
        about="A simulated drum through the arrivals, levels and signs of this layout; no room, no other drums."
      >
        {open && <Hearing row={row} />}
      </Ask>
    </>
  );
}

const POLL_MS = 300;
const SLOW_MS = 12_000;

/** The example as it is rendered, asked after until it is done. */
function useExample(row: PairRow) {
  const editor = useEditor();
  const [example, setExample] = useState<Example | null>(null);
  const [bad, setBad] = useState("");
  const [round, setRound] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `round` asks once more
  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = async (id: number) => {
      const now = await must<Example>(
        api.GET("/api/examples/{pk}", { params: { path: { pk: id } } }),
      );
      follow(now);
    };
    const follow = (now: Example) => {
      if (gone) return;
      setExample(now);
      if (now.state === "waiting" || now.state === "working")
        timer = setTimeout(() => look(now.id).catch(fail), POLL_MS);
    };
    const fail = (error: Error) => !gone && setBad(error.message);
    const { still, out } = editor.snapshot();
    exactly<Example>(
      api.POST("/api/layouts/{pk}/examples", {
        params: { path: { pk: out.id } },
        body: { layout: still, a: row.a, b: row.b, source: row.source },
      }),
    )
      .then(follow)
      .catch(fail);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [editor, row.a, row.b, row.source, round]);
  const cancel = () => {
    if (!example) return;
    must<Example>(api.DELETE("/api/examples/{pk}", { params: { path: { pk: example.id } } }))
      .then(setExample)
      .catch((e: Error) => setBad(e.message));
  };
  return { example, bad, cancel, again: () => setRound((n) => n + 1) };
}

function Hearing({ row }: { row: PairRow }) {
  const { example, bad, cancel, again } = useExample(row);
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), SLOW_MS);
    return () => clearTimeout(timer);
  }, []);
  if (bad) return <p role="alert">{bad}</p>;
  if (!example) return <p className="text-soft">Asking for it…</p>;
  if (example.state === "done") return <Listening example={example} row={row} />;
  if (example.state === "cancelled" || example.state === "failed")
    return (
      <div>
        <p role="alert">
          {example.state === "failed"
            ? "It could not be rendered."
            : "Called off; nothing is kept."}
        </p>
        <button type="button" className="btn mt-2" onClick={again}>
          Render it after all
        </button>
      </div>
    );
  return (
    <div>
      <progress className="w-full" max={1} value={example.progress} aria-label="Rendering" />
      <p className="mt-1 text-[0.88rem] text-soft">
        {example.state === "waiting" ? "Waiting for a worker…" : "Rendering…"}{" "}
        {example.state === "waiting" &&
          slow &&
          "None has taken it up yet. Workers start with the application; start it again if this lasts."}
      </p>
      <button type="button" className="btn mt-2" onClick={cancel}>
        Cancel
      </button>
    </div>
  );
}

const QUIET = 0.25;

function names(row: PairRow): Record<Version, string> {
  return {
    a: `${row.a} alone`,
    b: `${row.b} alone`,
    wired: "both as wired",
    flipped: "one flipped",
    aligned: "both aligned",
  };
}

const KEYS: Version[] = ["a", "b", "wired", "flipped", "aligned"];

function usePlayer(example: Example) {
  const [player, setPlayer] = useState<Player | null>(null);
  const [bad, setBad] = useState("");
  useEffect(() => {
    let gone = false;
    const made = new Player(new AudioContext(), QUIET);
    const load = async () => {
      for (const version of example.versions) {
        const file = await fetch(`/api/examples/${example.id}/${version}.wav`);
        if (!file.ok) throw new Error(`The sound is not there (${file.status}). Ask for it again.`);
        await made.load(version, await file.arrayBuffer());
      }
      if (!gone) setPlayer(made);
    };
    load().catch((e: Error) => !gone && setBad(e.message));
    return () => {
      gone = true;
      made.close();
    };
  }, [example]);
  return { player, bad };
}

function Listening({ example, row }: { example: Example; row: PairRow }) {
  const { player, bad } = usePlayer(example);
  const [heard, setHeard] = useState<string | null>(null);
  const [volume, setVolume] = useState(QUIET);
  const [two, setTwo] = useState<Two>({ A: "wired", B: "flipped" });
  const [blind, setBlind] = useState<Blind | null>(null);
  const [last, setLast] = useState("");
  const said = useMemo(() => names(row), [row]);
  const hear = (shown: string, version: Version) => {
    player?.hear(version);
    setHeard(shown);
  };
  const stop = () => {
    player?.stop();
    setHeard(null);
  };
  const press = (key: string) => {
    const version = KEYS[Number(key) - 1];
    if (version && !blind) hear(version, version);
    else if (key === "a") hear("A", two.A);
    else if (key === "b") hear("B", two.B);
    else if (key === "x" && blind) hear("X", two[blind.x]);
    else if (key === " ") heard ? stop() : hear("A", two.A);
    else return false;
    return true;
  };
  const keys = useRef(press);
  keys.current = press;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.target instanceof HTMLElement && e.target.closest("select, input[type=range]")) return;
      if (e.key === " " && e.target instanceof HTMLButtonElement) return;
      if (keys.current(e.key.toLowerCase())) e.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const answer = (which: "A" | "B") => {
    if (!blind) return;
    setLast(which === blind.x ? "Right." : `No, it was ${blind.x}.`);
    setBlind(answered(blind, which));
    stop();
  };
  if (bad) return <p role="alert">{bad}</p>;
  if (!player) return <p className="text-soft">Fetching the sounds…</p>;
  return (
    <div className="space-y-3">
      <p className="rounded-lg border border-hair bg-card px-3 py-2 text-[0.85rem]">
        <b>Start quiet.</b> Drums have sharp peaks: turn your speakers or headphones down first, and
        rest your ears. All versions are equally loud.
      </p>
      {example.words && (
        <p className="text-[0.88rem] font-semibold text-latetext">{example.words}</p>
      )}
      {!blind && (
        <fieldset className="flex flex-wrap gap-1.5">
          <legend className="sr-only">Hear</legend>
          {KEYS.map((v, i) => (
            <button
              key={v}
              type="button"
              data-hear={v}
              aria-pressed={heard === v}
              className={heard === v ? "btn-main px-3 py-1" : "btn px-3 py-1"}
              onClick={() => hear(v, v)}
            >
              <span className="num mr-1.5 opacity-60">{i + 1}</span>
              {said[v]}
            </button>
          ))}
        </fieldset>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <button type="button" className="btn" onClick={stop} disabled={!heard}>
          Stop
        </button>
        <label className="flex items-center gap-2 text-[0.88rem]">
          Level
          <input
            type="range"
            min="0"
            max="1"
            step="0.05"
            value={volume}
            onChange={(e) => {
              setVolume(Number(e.target.value));
              player.setVolume(Number(e.target.value));
            }}
          />
        </label>
        <span className="text-[0.82rem] text-soft" aria-live="polite" data-heard={heard ?? ""}>
          {heard ? `Hearing ${said[heard as Version] ?? heard}` : "Silent"}
        </span>
      </div>
      <section aria-label="Two against each other" className="border-t border-hair pt-3">
        <div className="flex flex-wrap items-end gap-3">
          {(["A", "B"] as const).map((side) => (
            <label key={side} className="block">
              <span className="text-[0.8rem] text-soft">{side} is</span>
              <select
                className="field block"
                value={two[side]}
                disabled={blind !== null}
                onChange={(e) => setTwo({ ...two, [side]: e.target.value as Version })}
              >
                {KEYS.map((v) => (
                  <option key={v} value={v}>
                    {said[v]}
                  </option>
                ))}
              </select>
            </label>
          ))}
          {(["A", "B"] as const).map((side) => (
            <button
              key={side}
              type="button"
              className="btn"
              onClick={() => hear(side, two[side])}
              aria-pressed={heard === side}
            >
              Hear {side}
            </button>
          ))}
          {blind ? (
            <button
              type="button"
              className="btn"
              onClick={() => hear("X", two[blind.x])}
              aria-pressed={heard === "X"}
            >
              Hear X
            </button>
          ) : (
            <button
              type="button"
              className="btn"
              disabled={two.A === two.B}
              onClick={() => {
                stop();
                setLast("");
                setBlind(begun());
              }}
            >
              Blind test
            </button>
          )}
        </div>
        {blind && (
          <div className="mt-3 flex flex-wrap items-center gap-3" data-blind={blind.given}>
            <button type="button" className="btn-main px-3 py-1" onClick={() => answer("A")}>
              X is A
            </button>
            <button type="button" className="btn-main px-3 py-1" onClick={() => answer("B")}>
              X is B
            </button>
            <span className="text-[0.9rem]" aria-live="polite">
              {last} <b className="num">{blind.right}</b> of <b className="num">{blind.given}</b>{" "}
              right. {verdictOf(blind)}
            </span>
            <button
              type="button"
              className="font-semibold text-snare underline"
              onClick={() => {
                stop();
                setBlind(null);
              }}
            >
              End the test
            </button>
          </div>
        )}
        <p className="mt-2 text-[0.8rem] text-soft">
          Keys: 1 to 5 hear a version, A, B and X switch, the space bar stops and starts.
        </p>
      </section>
    </div>
  );
}
