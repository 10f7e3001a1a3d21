/** Addresses of the application, and the gate: strangers see the sign-in page only. */
import { useQuery } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { memo } from "react";
import { Navigate, Route, Routes, useLocation } from "react-router";
import { Answered, api, must } from "./api/client";
import type { Me } from "./api/types";
import { MeContext } from "./parts/me";
import { Piece } from "./parts/Piece";
import { SignInAgain } from "./parts/SignInAgain";
import { Toasts } from "./parts/toast";
import { Account, LayoutShell, Locker, OnAPhone, Sessions, SignIn, steps } from "./steps/pieces";

export function App() {
  const me = useQuery({
    queryKey: ["me"],
    queryFn: () => must(api.GET("/api/account/me")),
    retry: (count, error) => !(error instanceof Answered) && count < 3,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const at = useLocation();
  if (me.isPending) return <p className="p-8 text-soft">Opening…</p>;
  const stranger = !me.data && me.error instanceof Answered && me.error.status === 401;
  if (me.error && !me.data && !stranger)
    return (
      <main className="p-8" role="alert">
        <h1 className="text-xl">The server does not answer</h1>
        <p>Nothing is lost. Start it with ./ringside up; this page then opens by itself.</p>
      </main>
    );
  if (stranger)
    return (
      <Piece>
        <Routes>
          <Route path="/sign-in" element={<SignIn />} />
          <Route path="/on-a-phone" element={<OnAPhone />} />
          <Route
            path="*"
            element={<Navigate to="/sign-in" state={{ from: at.pathname }} replace />}
          />
        </Routes>
      </Piece>
    );
  return <SignedIn me={me.data ?? null} />;
}

/** Drawn anew when somebody else is there, and not at each change of the address: that is of `Routes`. */
const SignedIn = memo(function SignedIn({ me }: { me: Me | null }) {
  return (
    <MeContext value={me}>
      <Tooltip.Provider delayDuration={350}>
        <Toasts>
          <SignInAgain />
          <Piece>
            <Routes>
              <Route path="/" element={<Sessions />} />
              <Route path="/sign-in" element={<Navigate to="/" replace />} />
              <Route path="/account" element={<Account />} />
              <Route path="/on-a-phone" element={<OnAPhone />} />
              <Route path="/studios/:studio/locker" element={<Locker />} />
              <Route path="/layouts/:id" element={<LayoutShell />}>
                <Route index element={<Navigate to="place" replace />} />
                {steps.map(({ at, Screen }) => (
                  <Route key={at} path={at} element={<Screen />} />
                ))}
              </Route>
              <Route path="*" element={<Missing />} />
            </Routes>
          </Piece>
        </Toasts>
      </Tooltip.Provider>
    </MeContext>
  );
});

function Missing() {
  return (
    <main className="p-8">
      <h1 className="text-xl">Nothing here</h1>
      <p>
        This address leads nowhere.{" "}
        <a className="underline" href="/">
          Go to your sessions
        </a>
        .
      </p>
    </main>
  );
}
