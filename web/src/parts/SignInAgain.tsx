/** The server forgot who is here: signing in over the page, and what waited goes on. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useSyncExternalStore } from "react";
import { api, must } from "../api/client";
import { door } from "../core/door";
import { Ask } from "./Ask";
import { useMe } from "./me";

function useAgain(name: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (password: string) =>
      must(api.POST("/api/account/sign-in", { body: { username: name, password } })),
    onSuccess: (me) => {
      queries.setQueryData(["me"], me);
      door.open();
      void queries.invalidateQueries({ predicate: (q) => q.state.status === "error" });
    },
  });
}

export function SignInAgain() {
  const shut = useSyncExternalStore(door.subscribe, door.isShut);
  const { username } = useMe();
  const enter = useAgain(username);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    enter.mutate(String(new FormData(e.currentTarget).get("password")));
  };
  return (
    <Ask
      open={shut}
      closable={false}
      onClose={() => undefined}
      title="Sign in again"
      about="You were signed out. What you did since is kept on this page and goes on."
    >
      <form onSubmit={submit} className="space-y-3">
        <input type="hidden" name="username" autoComplete="username" value={username} />
        <label className="block">
          <span className="text-[0.88rem] text-soft">Password of {username}</span>
          <input
            className="field w-full py-2"
            required
            type="password"
            name="password"
            autoComplete="current-password"
            maxLength={200}
          />
        </label>
        {enter.error && (
          <p role="alert" className="font-semibold text-hollow">
            {enter.error.message}
          </p>
        )}
        <button type="submit" className="btn-main w-full" disabled={enter.isPending}>
          Sign in and go on
        </button>
        <a className="block text-[0.85rem] text-soft underline" href="/sign-in">
          Somebody else? Go to the sign-in page; what is unsent stays in this browser.
        </a>
      </form>
    </Ask>
  );
}
