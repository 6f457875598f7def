import "@fontsource/alegreya-sans/latin-400.css";
import "@fontsource/alegreya-sans/latin-400-italic.css";
import "@fontsource/alegreya-sans/latin-500.css";
import "@fontsource/alegreya-sans/latin-700.css";
import "@fontsource/alegreya-sans/latin-700-italic.css";
import "@fontsource/alegreya-sans/latin-800.css";
import "./styles.css";

import { ChakraProvider } from "@chakra-ui/react";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";

import { Refused } from "./api/refusal";
import { App } from "./app";
import { system } from "./theme";

if (localStorage.getItem("gondola-night")) document.documentElement.classList.add("night");

const nonce = document.querySelector<HTMLMetaElement>("meta[name=csp-nonce]")?.content;
const styles = createCache({ key: "css", ...(nonce ? { nonce } : {}) });
/** What was understood and refused is refused again. */
const onceMore = (failed: number, flaw: unknown) => failed < 1 && !(flaw instanceof Refused && flaw.status === 422);
const queries = new QueryClient({
  defaultOptions: { queries: { retry: onceMore, refetchOnWindowFocus: false, staleTime: 30_000 } },
});

if (import.meta.env.PROD && "serviceWorker" in navigator) {
  navigator.serviceWorker.register("/sw.js").catch(() => {
    // without it the page needs its server, as any page does
  });
}

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <CacheProvider value={styles}>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          <BrowserRouter>
            <App />
          </BrowserRouter>
        </QueryClientProvider>
      </ChakraProvider>
    </CacheProvider>,
  );
}
