import { useEffect, useRef, useState } from "react";

const filesOf = (data: DataTransfer | null) => [...(data?.files ?? [])];
const carriesFiles = (event: DragEvent) => event.dataTransfer?.types.includes("Files") ?? false;

/** Files that are dropped anywhere on the page, or pasted, for as long as a form waits for some; whether some hang over it. */
export function useGivenFiles(take: (files: File[]) => void): boolean {
  const [hanging, setHanging] = useState(false);
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault(); // else the browser opens the file in the page's place
      setHanging(true);
    };
    const gone = (event: DragEvent) => {
      if (event.relatedTarget === null) setHanging(false);
    };
    const dropped = (event: DragEvent) => {
      if (!carriesFiles(event)) return;
      event.preventDefault();
      setHanging(false);
      latest.current(filesOf(event.dataTransfer));
    };
    const pasted = (event: ClipboardEvent) => {
      const files = filesOf(event.clipboardData);
      if (files.length) latest.current(files);
    };
    window.addEventListener("dragover", over);
    window.addEventListener("dragleave", gone);
    window.addEventListener("drop", dropped);
    window.addEventListener("paste", pasted);
    return () => {
      window.removeEventListener("dragover", over);
      window.removeEventListener("dragleave", gone);
      window.removeEventListener("drop", dropped);
      window.removeEventListener("paste", pasted);
    };
  }, []);
  return hanging;
}

/** Calls as soon as somebody drags a file over the page. */
export function useFilesOver(over: () => void): void {
  const latest = useRef(over);
  latest.current = over;
  useEffect(() => {
    const entered = (event: DragEvent) => {
      if (carriesFiles(event)) latest.current();
    };
    window.addEventListener("dragenter", entered);
    return () => window.removeEventListener("dragenter", entered);
  }, []);
}
