import { QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createQueries } from "./queryClient";
import { keepLook } from "./shell/theme";
import { UntilHere } from "./shell/UntilHere";
import "./theme.css";

// One page stands at an address: a lesson to read, a student's own page, a form by which a swing is sent, a walk from
// a file.
const PAGES = {
  l: lazy(async () => ({ default: (await import("./lesson/StudentPage")).StudentPage })),
  p: lazy(async () => ({ default: (await import("./page/OwnPage")).OwnPage })),
  w: lazy(async () => ({ default: (await import("./walk/opened/OpenedWalk")).OpenedWalk })),
  s: lazy(async () => ({ default: (await import("./send/RequestPage")).RequestPage })),
};

keepLook();

const [, kind, token = ""] = window.location.pathname.split("/");
const Page = PAGES[kind === "s" || kind === "p" || kind === "w" ? kind : "l"];
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={createQueries()}>
        <Suspense fallback={<UntilHere />}>
          <Page token={decodeURIComponent(token)} />
        </Suspense>
      </QueryClientProvider>
    </StrictMode>,
  );
