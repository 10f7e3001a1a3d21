/** The example as it is rendered, asked after until it is done; then its sounds, ready to play. */
import { useEffect, useState } from "react";
import { api, exactly, must, unreached } from "../../../api/client";
import type { Example, PairRow } from "../../../api/types";
import type { Editor } from "../../../core/editor";
import { Player } from "../../../core/player";
import { useEditor } from "../../../parts/editing";

const POLL_MS = 300;
export const QUIET = 0.25;

const path = (id: number) => ({ params: { path: { pk: id } } });

/** Asks for an example and follows it; the answer stops following. */
function followed(
  editor: Editor,
  row: PairRow,
  told: (now: Example) => void,
  failed: (error: Error) => void,
): () => void {
  let gone = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const fail = (error: Error) => {
    if (!gone) failed(error);
  };
  const look = (id: number) =>
    must<Example>(api.GET("/api/examples/{pk}", path(id)))
      .then(follow)
      .catch(fail);
  const follow = (now: Example) => {
    if (gone) return;
    told(now);
    if (now.state === "waiting" || now.state === "working")
      timer = setTimeout(() => void look(now.id), POLL_MS);
  };
  const { still, out } = editor.snapshot();
  const body = { layout: still, a: row.a, b: row.b, source: row.source };
  exactly<Example>(api.POST("/api/layouts/{pk}/examples", { ...path(out.id), body }))
    .then(follow)
    .catch(fail);
  return () => {
    gone = true;
    clearTimeout(timer);
  };
}

export function useExample(row: PairRow) {
  const editor = useEditor();
  const [example, setExample] = useState<Example | null>(null);
  const [bad, setBad] = useState("");
  const [round, setRound] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `round` asks once more
  useEffect(
    () => followed(editor, row, setExample, (e) => setBad(e.message)),
    [editor, row.a, row.b, row.source, round],
  );
  const cancel = () => {
    if (!example) return;
    must<Example>(api.DELETE("/api/examples/{pk}", path(example.id)))
      .then(setExample)
      .catch((e: Error) => setBad(e.message));
  };
  return { example, bad, cancel, again: () => setRound((n) => n + 1) };
}

async function loaded(player: Player, example: Example): Promise<void> {
  for (const version of example.versions) {
    const file = await fetch(`/api/examples/${example.id}/${version}.wav`).catch(unreached);
    if (!file.ok) throw new Error(`The sound is not there (${file.status}). Ask for it again.`);
    await player.load(version, await file.arrayBuffer());
  }
}

export function usePlayer(example: Example) {
  const [player, setPlayer] = useState<Player | null>(null);
  const [bad, setBad] = useState("");
  useEffect(() => {
    let gone = false;
    const made = new Player(new AudioContext(), QUIET);
    loaded(made, example)
      .then(() => !gone && setPlayer(made))
      .catch((e: Error) => !gone && setBad(e.message));
    return () => {
      gone = true;
      made.close();
    };
  }, [example]);
  return { player, bad };
}
