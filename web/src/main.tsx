import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { asking } from "./api/asking";
import { askAhead } from "./api/layouts";
import { App } from "./app";
import { applyTheme, storedTheme } from "./core/theme";
import { GoProvider } from "./parts/go";
import { fetchFor } from "./steps/pieces";
import "./theme.css";

// Dialogs insert a style sheet; the content policy lets it in by this nonce only.
const nonce = document.querySelector<HTMLMetaElement>('meta[name="nonce"]')?.content;
if (nonce) setNonce(nonce);
applyTheme(storedTheme());
fetchFor(location.pathname);
askAhead(location.pathname);

const queries = new QueryClient(asking);
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter useTransitions={false}>
          <GoProvider>
            <App />
          </GoProvider>
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
