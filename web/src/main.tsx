import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { setNonce } from "get-nonce";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./app";
import { applyTheme, storedTheme } from "./core/theme";
import "./theme.css";

// Dialogs insert a style sheet; the content policy lets it in by this nonce only.
const nonce = document.querySelector<HTMLMetaElement>('meta[name="nonce"]')?.content;
if (nonce) setNonce(nonce);
applyTheme(storedTheme());

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false, staleTime: 5000 } },
});
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
