import "@fontsource-variable/atkinson-hyperlegible-next";
import "@fontsource-variable/bricolage-grotesque";
import "./app/theme.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { listen } from "./api/stream";
import { App } from "./app/App";
import { makeQueryClient, onMessage } from "./app/queries";
import { recall, remember } from "./app/remembered";
import { loadAhead } from "./app/views";
import { recallDrafts } from "./shared/saving";

loadAhead(window.location.pathname);
const root = document.getElementById("root");
if (!root) throw new Error("no root element");
const queryClient = makeQueryClient();
await recall(queryClient);
await recallDrafts();
remember(queryClient);
listen((message) => onMessage(queryClient, message));

// only once the page stands, since what is on it comes first; a browser that does not trust this machine's certificate refuses,
// then the open page alone must do
const QUIET_MS = 1500;
if ("serviceWorker" in navigator)
  window.setTimeout(
    () => void navigator.serviceWorker.register("/offline.js").catch(() => undefined),
    QUIET_MS,
  );

createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <BrowserRouter>
        <App />
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
