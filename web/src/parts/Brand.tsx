import { Link } from "react-router";

/** The name and the mark, leading home. */
export function Brand() {
  return (
    <Link
      to="/"
      className="flex shrink-0 items-center gap-2 font-head text-[1.2rem] font-extrabold"
    >
      <img src={`${import.meta.env.BASE_URL}mark.svg`} alt="" width="25" height="25" />
      Ringside
    </Link>
  );
}
