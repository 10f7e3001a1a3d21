/** Signing in, or opening a studio. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { api, must } from "../../api/client";

export function SignIn() {
  const [fresh, setFresh] = useState(false);
  const queries = useQueryClient();
  const go = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? "/";
  const enter = useMutation({
    mutationFn: (data: { username: string; password: string; studio: string }) => {
      const { username, password, studio } = data;
      return fresh
        ? must(api.POST("/api/account/sign-up", { body: { username, password, studio } }))
        : must(api.POST("/api/account/sign-in", { body: { username, password } }));
    },
    onSuccess: (me) => {
      queries.clear();
      queries.setQueryData(["me"], me);
      go(from, { replace: true });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "");
    enter.mutate({
      username: text("username"),
      password: text("password"),
      studio: text("studio"),
    });
  };
  return (
    <main className="grid min-h-screen grid-cols-[minmax(22rem,1fr)_1.3fr] max-[900px]:grid-cols-1">
      <section className="flex flex-col justify-center px-[12%] py-10">
        <h1 className="flex items-center gap-3 text-4xl">
          <img src={`${import.meta.env.BASE_URL}mark.svg`} alt="" width="44" height="44" />
          Ringside
        </h1>
        <p className="mt-2 mb-7 max-w-md text-soft">
          Plan the mics of a drum kit, keep snare and kick at one distance, and know which pairs
          agree before anything is recorded.
        </p>
        <form onSubmit={submit} className="max-w-sm space-y-3.5">
          {fresh && <Field name="studio" label="Studio" autoComplete="organization" />}
          <Field name="username" label="Name" autoComplete="username" />
          <Field
            name="password"
            label="Password"
            type="password"
            autoComplete={fresh ? "new-password" : "current-password"}
          />
          {enter.error && (
            <p role="alert" className="font-semibold text-hollow">
              {enter.error.message}
            </p>
          )}
          <button type="submit" className="btn-main w-full" disabled={enter.isPending}>
            {fresh ? "Open a studio" : "Sign in"}
          </button>
        </form>
        <button
          type="button"
          className="mt-4 self-start font-semibold text-snare underline"
          onClick={() => {
            setFresh(!fresh);
            enter.reset();
          }}
        >
          {fresh ? "I have an account" : "Open a new studio"}
        </button>
      </section>
      <section
        className="grid place-items-center bg-panel p-10 max-[900px]:hidden"
        aria-hidden="true"
      >
        <RingPicture />
      </section>
    </main>
  );
}

function Field(props: { name: string; label: string; type?: string; autoComplete: string }) {
  return (
    <label className="block">
      <span className="text-[0.88rem] text-soft">{props.label}</span>
      <input
        className="field w-full py-2"
        required
        name={props.name}
        type={props.type ?? "text"}
        autoComplete={props.autoComplete}
        maxLength={150}
      />
    </label>
  );
}

/** Two drums, a line between them, and the ring of equal spots round that line. */
function RingPicture() {
  return (
    <svg viewBox="0 0 420 420" className="w-full max-w-lg">
      <g fill="none" stroke="var(--hair)">
        <path d="M0 105H420M0 210H420M0 315H420M105 0V420M210 0V420M315 0V420" />
      </g>
      <ellipse
        cx="205"
        cy="205"
        rx="172"
        ry="92"
        transform="rotate(-38 205 205)"
        fill="none"
        stroke="var(--ring)"
        strokeWidth="4"
        strokeDasharray="300 12 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 4 8 600"
      />
      <rect
        x="205"
        y="120"
        width="92"
        height="72"
        rx="3"
        fill="var(--shell)"
        stroke="var(--ink)"
        strokeWidth="2.5"
      />
      <circle cx="178" cy="236" r="34" fill="var(--shell)" stroke="var(--ink)" strokeWidth="2.5" />
      <path d="M88 120 178 236 332 272" fill="none" stroke="var(--snare)" strokeWidth="2" />
      <path
        d="M88 120 251 192 332 272"
        fill="none"
        stroke="var(--kick)"
        strokeWidth="2"
        strokeDasharray="6 4"
      />
      <circle cx="178" cy="236" r="6" fill="var(--snare)" />
      <rect x="245" y="186" width="12" height="12" fill="var(--kick)" />
      <g fill="var(--ring)">
        <circle cx="88" cy="120" r="9" />
        <circle cx="332" cy="272" r="9" />
      </g>
    </svg>
  );
}
