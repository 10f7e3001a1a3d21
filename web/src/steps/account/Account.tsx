/** One's account: studios, password. */
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useRef } from "react";
import { api, must } from "../../api/client";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { HandSection } from "./HandSection";

export function Account() {
  const me = useMe();
  const form = useRef<HTMLFormElement>(null);
  const change = useMutation({
    mutationFn: (body: { old: string; new: string }) =>
      must(api.POST("/api/account/password", { body })),
    onSuccess: () => form.current?.reset(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    change.mutate({ old: String(data.get("old")), new: String(data.get("new")) });
  };
  return (
    <div className="min-h-screen">
      <header className="border-b border-hair bg-panel px-5 py-3">
        <Brand />
      </header>
      <main className="mx-auto max-w-xl space-y-6 p-6">
        <h1 className="text-2xl">{me.username}</h1>
        <section>
          <h2 className="text-lg">Studios</h2>
          <ul>
            {me.studios.map((s) => (
              <li key={s.id}>
                {s.name} <span className="text-soft">{s.role}</span>
              </li>
            ))}
          </ul>
        </section>
        <HandSection />
        <section>
          <h2 className="text-lg">Password</h2>
          <form ref={form} onSubmit={submit} className="max-w-sm space-y-3">
            <label className="block">
              <span className="text-soft">Old password</span>
              <input
                className="field w-full"
                name="old"
                type="password"
                required
                autoComplete="current-password"
              />
            </label>
            <label className="block">
              <span className="text-soft">New password</span>
              <input
                className="field w-full"
                name="new"
                type="password"
                required
                autoComplete="new-password"
              />
            </label>
            <button type="submit" className="btn-main" disabled={change.isPending}>
              Change the password
            </button>
            <p role="status" className={change.error ? "text-hollow" : "text-ring"}>
              {change.error?.message ?? (change.isSuccess ? "The password is changed." : "")}
            </p>
          </form>
        </section>
      </main>
    </div>
  );
}
