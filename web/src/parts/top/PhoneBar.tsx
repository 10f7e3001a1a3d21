/** The head of the page on a phone: which layout, whether all is saved, and who is there. */
import { Link } from "react-router";
import { AccountMenu } from "../AccountMenu";
import { useEditorPart } from "../editing";
import { SavedState } from "./TopBar";

export function PhoneBar() {
  const out = useEditorPart((s) => s.out);
  const name = useEditorPart((s) => s.still.name);
  return (
    <header className="flex min-w-0 items-center gap-3 border-b border-hair bg-panel px-3">
      <Link to="/" className="min-w-0 truncate">
        <strong>{name}</strong> <span className="text-soft">{out.session_name}</span>
        <span className="sr-only">, to your sessions</span>
      </Link>
      <SavedState />
      <AccountMenu />
    </header>
  );
}
