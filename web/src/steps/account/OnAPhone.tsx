/** Where the code of a link leads: one touch signs this phone in and opens the layout. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, must } from "../../api/client";
import type { Opened } from "../../api/types";
import { door } from "../../core/door";

/** The word after the #, which no server and no other page is told. */
const wordOf = (hash: string) => decodeURIComponent(hash.replace(/^#/, ""));

function useOpen() {
  const queries = useQueryClient();
  const go = useNavigate();
  return useMutation({
    mutationFn: (word: string) => must<Opened>(api.POST("/api/account/phone", { body: { word } })),
    onSuccess: ({ me, leads_to }) => {
      door.open();
      queries.clear();
      queries.setQueryData(["me"], me);
      go(leads_to, { replace: true });
    },
  });
}

export function OnAPhone() {
  const open = useOpen();
  const word = wordOf(location.hash);
  return (
    <main className="mx-auto flex min-h-screen max-w-md flex-col justify-center gap-4 p-6">
      <h1 className="text-3xl">Ringside</h1>
      {word ? (
        <p className="text-soft">
          This link signs this phone in, once. What is measured at the kit is kept on it first and
          sent as soon as it can be.
        </p>
      ) : (
        <p>This address is for the code that Open on a phone shows. Read the code again.</p>
      )}
      {open.error && (
        <p role="alert" className="font-semibold text-hollow">
          {open.error.message}
        </p>
      )}
      {word && (
        <button
          type="button"
          className="btn-main w-full py-4 text-lg"
          disabled={open.isPending}
          onClick={() => open.mutate(word)}
        >
          Sign this phone in
        </button>
      )}
      <a className="underline" href="/">
        To your sessions
      </a>
    </main>
  );
}
