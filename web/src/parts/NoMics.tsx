/** What a step says that has nothing to work on before mics are placed, and the way there. */
import { Link } from "react-router";

export function NoMics({ words }: { words: string }) {
  return (
    <p className="p-6">
      {words}{" "}
      <Link to="../place" className="font-semibold text-snare underline">
        Add mics on Place
      </Link>
      , then come back.
    </p>
  );
}
