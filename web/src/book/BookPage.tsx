import type { ReactNode } from "react";
import { NavLink } from "react-router";
import { Page } from "../parts/Page";

const PARTS = [
  ["/book", "Drills"],
  ["/book/models", "Teaching models"],
] as const;

/** A part of the book, with the ways to the others. */
export function BookPage({
  title,
  actions,
  children,
}: {
  title: string;
  actions?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Page title={title} actions={actions}>
      <nav aria-label="Book" className="-mt-2 mb-4 flex gap-1 text-sm">
        {PARTS.map(([to, label]) => (
          <NavLink
            key={to}
            to={to}
            end
            className={({ isActive }) =>
              `border-b-2 px-2 py-1 ${isActive ? "border-brass font-semibold" : "border-transparent"}`
            }
          >
            {label}
          </NavLink>
        ))}
      </nav>
      {children}
    </Page>
  );
}
