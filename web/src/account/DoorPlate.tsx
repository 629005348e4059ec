import type { ReactNode } from "react";
import { usePageTitle } from "../parts/usePageTitle";
import { Wordmark } from "../parts/Wordmark";

/** The plate before the door: pages that are seen before one is signed in. */
export function DoorPlate({ title, children }: { title: string; children: ReactNode }) {
  usePageTitle(title);
  return (
    <main className="grid min-h-full place-items-center p-4">
      <div className="plate w-full max-w-sm p-6">
        <p className="text-base-content">
          <Wordmark large />
        </p>
        <h1 className="mt-3 mb-4 text-lg font-semibold">{title}</h1>
        {children}
      </div>
    </main>
  );
}
