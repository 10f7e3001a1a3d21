import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

const back = process.env.RINGSIDE_BACK ?? "http://127.0.0.1:8322";

// Read by Chromium's engine, a comment to all others: every function of a file is compiled as it is
// loaded, beside the page. Compiled one by one as they are first called, a hundred of them are in
// the first frames of a drag. It counts as the first line only, so it is put there last.
const AT_LOAD = "//# allFunctionsCalledOnLoad";

const compiledAtLoad = (): Plugin => ({
  name: "compiled-at-load",
  generateBundle: {
    order: "post",
    handler(_, bundle) {
      for (const file of Object.values(bundle))
        if (file.type === "chunk") file.code = `${AT_LOAD}\n${file.code}`;
    },
  },
});

export default defineConfig(({ command }) => ({
  // Built files are served below /static/; the development server is at the root.
  base: command === "build" ? "/static/" : "/",
  plugins: [react(), tailwindcss(), compiledAtLoad()],
  build: {
    assetsInlineLimit: 0,
    // Libraries stay the same from one release to the next, and so does their file; what screens
    // share is one more, each screen its own.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: "libraries", test: /node_modules/ },
            { name: "shared", test: /src\/(api|core|parts)\//, minShareCount: 2 },
          ],
        },
      },
    },
  },
  worker: { plugins: () => [compiledAtLoad()] },
  server: {
    proxy: { "/api": { target: back, ws: true } },
    // As the server says it: pages share memory with their workers.
    headers: {
      "Cross-Origin-Opener-Policy": "same-origin",
      "Cross-Origin-Embedder-Policy": "require-corp",
    },
  },
}));
