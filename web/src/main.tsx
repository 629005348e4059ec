import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, Navigate } from "react-router";
import { RouterProvider } from "react-router/dom";
import { createQueries } from "./queryClient";
import "./theme.css";
import { Broken } from "./shell/Broken";
import { keepLook } from "./shell/theme";

const queries = createQueries();

/** A screen of the piece that instructors carry. */
const screen = (name: Exclude<keyof typeof import("./screens"), "default">) => async () => ({
  Component: (await import("./screens"))[name],
});

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    hydrateFallbackElement: <p className="p-6">Opening…</p>,
    children: [
      { path: "/sign-in", lazy: screen("SignIn") },
      { path: "/forgotten", lazy: screen("Forgotten") },
      { path: "/new-password/:key", lazy: screen("NewPassword") },
      {
        lazy: screen("Shell"),
        children: [
          { index: true, element: <Navigate to="/inbox" replace /> },
          {
            errorElement: <Broken />, // inside the frame, which still says whether there is a connection
            children: [
              { path: "inbox", lazy: screen("Inbox") },
              { path: "students", lazy: screen("Students") },
              { path: "students/:id", lazy: screen("StudentCard") },
              { path: "shelf", lazy: async () => ({ Component: (await import("./shelf/Shelf")).Shelf }) },
              { path: "lessons", lazy: screen("Lessons") },
              { path: "book", lazy: screen("DrillBook") },
              { path: "book/models", lazy: screen("Models") },
              { path: "hours/:id", lazy: screen("StudioHour") },
              { path: "bin", lazy: screen("Bin") },
              { path: "account", lazy: screen("Account") },
              { path: "lessons/:id", lazy: screen("LessonDesk") },
              { path: "bench/:id", lazy: async () => ({ Component: (await import("./bench/Bench")).Bench }) },
              { path: "*", lazy: screen("NotHere") },
            ],
          },
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
