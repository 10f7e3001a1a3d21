/** What is wrong with where the kit stands: under the floor, or outside its room. */
import { useEditorPart } from "./editing";

export function KitFaults() {
  const words = useEditorPart((s) => s.board?.kit);
  if (!words?.length) return null;
  return (
    <p role="alert" className="rounded-md border border-hollow p-2 text-[0.88rem] text-hollow">
      {words.join(" ")}
    </p>
  );
}
