import type { ReactNode } from "react";
import { usePageTitle } from "./usePageTitle";

/** A screen's heading over its tape edge, with the screen's own actions. */
export function Page({
  title,
  actions,
  wide,
  children,
}: {
  title: string;
  actions?: ReactNode;
  wide?: boolean;
  children: ReactNode;
}) {
  usePageTitle(title);
  return (
    <div className={`mx-auto px-4 py-5 ${wide ? "max-w-7xl" : "max-w-5xl"}`}>
      <div className="flex flex-wrap items-end justify-between gap-x-4">
        <h1 className="text-2xl font-bold">{title}</h1>
        <div className="flex gap-2">{actions}</div>
      </div>
      <div className="tape-edge mt-1 mb-4 opacity-60" aria-hidden />
      {children}
    </div>
  );
}

export function Empty({ children }: { children: ReactNode }) {
  return <div className="plate border-dashed p-8 text-center">{children}</div>;
}
