import { useEffect, useState } from "react";
import { useLocation } from "react-router";

/** Whether the finder is open: Ctrl K opens it on every screen but the bench, which has its own with more in it. */
export function useFinder(): [boolean, (open: boolean) => void] {
  const [open, setOpen] = useState(false);
  const onBench = useLocation().pathname.startsWith("/bench/");
  useEffect(() => {
    if (onBench) return;
    const pressed = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== "k" || !(event.ctrlKey || event.metaKey)) return;
      if (event.altKey || event.shiftKey || document.querySelector("dialog[open]")) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [onBench]);
  return [open, setOpen];
}
