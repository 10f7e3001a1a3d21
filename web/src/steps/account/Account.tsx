/** One's account: studios, password. */
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useRef } from "react";
import { api, must } from "../../api/client";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { CarrySection } from "./CarrySection";
import { DevicesSection } from "./DevicesSection";
import { HandSection } from "./HandSection";

export function Account() {
  const me = useMe();
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
        <PasswordSection />
        <CarrySection />
        {/* Last: as its list comes nothing else moves from under the hand. */}
        <DevicesSection />
      </main>
    </div>
  );
}

function PasswordSection() {
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
    <section>
      <h2 className="text-lg">Password</h2>
      <form ref={form} onSubmit={submit} className="max-w-sm space-y-3">
        <Password label="Old password" name="old" fill="current-password" />
        <Password label="New password" name="new" fill="new-password" />
        <button type="submit" className="btn-main" disabled={change.isPending}>
          Change the password
        </button>
        <p role="status" className={change.error ? "text-hollow" : "text-ring"}>
          {change.error?.message ?? (change.isSuccess ? "The password is changed." : "")}
        </p>
      </form>
    </section>
  );
}

function Password({ label, name, fill }: { label: string; name: string; fill: string }) {
  return (
    <label className="block">
      <span className="text-soft">{label}</span>
      <input className="field w-full" name={name} type="password" required autoComplete={fill} />
    </label>
  );
}
