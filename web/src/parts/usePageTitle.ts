import { useEffect } from "react";

const PRODUCT = "Tropometer";

/** Says in the browser's tab and history what this page is. */
export function usePageTitle(words: string): void {
  useEffect(() => {
    document.title = words ? `${words} · ${PRODUCT}` : PRODUCT;
    return () => {
      document.title = PRODUCT;
    };
  }, [words]);
}
