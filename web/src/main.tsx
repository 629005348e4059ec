import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate } from "react-router";
import { RouterProvider } from "react-router/dom";
import { Account } from "./account/Account";
import { Forgotten } from "./account/Forgotten";
import { NewPassword } from "./account/NewPassword";
import { ApiError } from "./api/client";
import { BACK } from "./api/connection";
import { Bin } from "./bin/Bin";
import "./theme.css";
import { Inbox } from "./inbox/Inbox";
import { LessonDesk } from "./lesson/LessonDesk";
import { Lessons } from "./lesson/Lessons";
import { StudentPage } from "./lesson/StudentPage";
import { Broken } from "./shell/Broken";
import { NotHere } from "./shell/NotHere";
import { Shell } from "./shell/Shell";
import { SignIn } from "./shell/SignIn";
import { keepLook } from "./shell/theme";
import { Students } from "./students/Students";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (tries, error) => !(error instanceof ApiError) && tries < 3,
      staleTime: 5_000,
      networkMode: "always", // without a connection a screen says so; nothing waits to fire later
    },
    mutations: { networkMode: "always" },
  },
});

window.addEventListener(BACK, () => void queries.invalidateQueries());

const router = createBrowserRouter([
  { path: "/sign-in", element: <SignIn /> },
  { path: "/forgotten", element: <Forgotten /> },
  { path: "/new-password/:key", element: <NewPassword /> },
  { path: "/l/:token", element: <StudentPage /> },
  { path: "/s/:token", lazy: async () => ({ Component: (await import("./send/RequestPage")).RequestPage }) },
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <p className="p-6">Opening…</p>,
    children: [
      { index: true, element: <Navigate to="/inbox" replace /> },
      {
        errorElement: <Broken />, // inside the frame, which still says whether there is a connection
        children: [
          { path: "inbox", element: <Inbox /> },
          { path: "students", element: <Students /> },
          { path: "shelf", lazy: async () => ({ Component: (await import("./shelf/Shelf")).Shelf }) },
          { path: "lessons", element: <Lessons /> },
          { path: "bin", element: <Bin /> },
          { path: "account", element: <Account /> },
          { path: "lessons/:id", element: <LessonDesk /> },
          { path: "bench/:id", lazy: async () => ({ Component: (await import("./bench/Bench")).Bench }) },
          { path: "*", element: <NotHere /> },
        ],
      },
    ],
  },
]);

keepLook();

const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
