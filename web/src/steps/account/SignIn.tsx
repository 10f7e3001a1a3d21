/** Signing in, or opening a studio. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { api, must } from "../../api/client";
import { door } from "../../core/door";
import { RingPicture } from "./RingPicture";

/** Sign in, or open a studio when `fresh`; then on to where one wanted to go. */
function useEnter(fresh: boolean) {
  const queries = useQueryClient();
  const go = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? "/";
  return useMutation({
    mutationFn: (form: FormData) => {
      const text = (name: string) => String(form.get(name) ?? "");
      const who = { username: text("username"), password: text("password") };
      return fresh
        ? must(api.POST("/api/account/sign-up", { body: { ...who, studio: text("studio") } }))
        : must(api.POST("/api/account/sign-in", { body: who }));
    },
    onSuccess: (me) => {
      door.open();
      queries.clear();
      queries.setQueryData(["me"], me);
      go(from, { replace: true });
    },
  });
}

export function SignIn() {
  const [fresh, setFresh] = useState(false);
  const enter = useEnter(fresh);
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
        <EnterForm fresh={fresh} enter={enter} />
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

function EnterForm({ fresh, enter }: { fresh: boolean; enter: ReturnType<typeof useEnter> }) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    enter.mutate(new FormData(e.currentTarget));
  };
  return (
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
