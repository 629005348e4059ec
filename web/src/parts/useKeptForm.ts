import { useLayoutEffect, useRef, useState } from "react";
import { keep } from "./keep";

const PREFIX = "tropometer.form.";

/**
 * Keeps what is typed into a form for this tab, over a reload, another page or a sheet closed by a slip,
 * until it is done or begun anew. `ready`: all its choices are there to be chosen. `round` is the form's
 * key: it changes when the form is begun anew.
 */
export function useKeptForm(name: string, ready = true) {
  const key = PREFIX + name;
  const form = useRef<HTMLFormElement>(null);
  const [found, setFound] = useState(false);
  const [round, setRound] = useState(() => crypto.randomUUID());
  useLayoutEffect(() => {
    const kept = read(key);
    if (!kept || !ready || !form.current) return;
    fill(form.current, kept);
    setFound(true);
  }, [key, ready]);
  const write = () => {
    if (form.current) keep(sessionStorage, key, JSON.stringify(typedIn(form.current)));
  };
  const said = (field: string) => read(key)?.find(([name]) => name === field)?.[1] ?? "";
  const clear = () => {
    sessionStorage.removeItem(key);
    setFound(false);
  };
  const again = () => {
    clear();
    setRound(crypto.randomUUID());
  };
  return { form: { ref: form, onInput: write }, found, said, clear, again, round };
}

export type KeptForm = ReturnType<typeof useKeptForm>;

/** Lets go of all forms that were begun, so that the next at this browser does not find them. */
export function forgetForms(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}

function typedIn(form: HTMLFormElement): [string, string][] {
  return [...new FormData(form)].filter((entry): entry is [string, string] => typeof entry[1] === "string");
}

function read(key: string): [string, string][] | null {
  try {
    return JSON.parse(sessionStorage.getItem(key) ?? "null");
  } catch {
    return null;
  }
}

function fill(form: HTMLFormElement, kept: [string, string][]): void {
  const values = new Map(kept);
  for (const field of form.elements) {
    // Several boxes may have one name, each with a value of its own.
    if (field instanceof HTMLInputElement && field.type === "checkbox")
      field.checked = kept.some(([name, value]) => name === field.name && value === field.value);
    else if (field instanceof HTMLInputElement && field.type === "radio")
      field.checked = values.get(field.name) === field.value;
    else if (
      field instanceof HTMLInputElement ||
      field instanceof HTMLTextAreaElement ||
      field instanceof HTMLSelectElement
    )
      field.value = values.get(field.name) ?? field.value;
  }
}
