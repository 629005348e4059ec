import { QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createQueries } from "./queryClient";
import { keepLook } from "./shell/theme";
import "./theme.css";

// Behind a link stands one page: a lesson to read, or a form by which a swing is sent.
const PAGES = {
  l: lazy(async () => ({ default: (await import("./lesson/StudentPage")).StudentPage })),
  s: lazy(async () => ({ default: (await import("./send/RequestPage")).RequestPage })),
};

keepLook();

const [, kind, token = ""] = window.location.pathname.split("/");
const Page = PAGES[kind === "s" ? "s" : "l"];
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={createQueries()}>
        <Suspense fallback={<p className="p-6">Opening…</p>}>
          <Page token={decodeURIComponent(token)} />
        </Suspense>
      </QueryClientProvider>
    </StrictMode>,
  );
