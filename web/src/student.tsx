import { QueryClientProvider } from "@tanstack/react-query";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createQueries } from "./queryClient";
import { keepLook } from "./shell/theme";
import { UntilHere } from "./shell/UntilHere";
import "./theme.css";

// One page stands at an address: a lesson to read, a student's own page, its mirror and its check, a form by which a swing is
// sent, a walk from a file, a phone that films a studio hour.
const PAGES = {
  l: lazy(async () => ({ default: (await import("./lesson/StudentPage")).StudentPage })),
  p: lazy(async () => ({ default: (await import("./page/OwnPage")).OwnPage })),
  f: lazy(async () => ({ default: (await import("./film/FilmPage")).FilmPage })),
  w: lazy(async () => ({ default: (await import("./walk/opened/OpenedWalk")).OpenedWalk })),
  check: lazy(async () => ({ default: (await import("./check/CheckPage")).CheckPage })),
  mirror: lazy(async () => ({ default: (await import("./mirror/Mirror")).Mirror })),
  s: lazy(async () => ({ default: (await import("./send/RequestPage")).RequestPage })),
};

keepLook();

const [, kind, token = "", part] = window.location.pathname.split("/");
const named = kind === "s" || kind === "p" || kind === "w" || kind === "f" ? kind : "l";
const Page = PAGES[named === "p" && (part === "mirror" || part === "check") ? part : named];
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
