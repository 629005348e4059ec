import { useEffect, useRef } from "react";

/** A field of a few words that is kept when it is left, or with Enter; on paper the words alone. */
export function Said(props: {
  label: string;
  value: string;
  longest: number;
  placeholder?: string;
  list?: string;
  keep: (words: string) => void;
}) {
  const { label, value, longest, placeholder, list, keep } = props;
  const field = useRef<HTMLInputElement>(null);
  const typed = useRef(false);
  // What is said elsewhere stands here too, but not over what is being typed; who typed stays in the field.
  useEffect(() => {
    if (field.current && !typed.current) field.current.value = value;
  }, [value]);
  const done = (at: HTMLInputElement) => {
    const words = at.value.trim();
    if (typed.current && words !== value) keep(words);
    else at.value = value;
    typed.current = false;
  };
  const latest = useRef(done);
  latest.current = done;
  useEffect(() => {
    const left = () => field.current && latest.current(field.current); // a page that is left blurs nothing
    window.addEventListener("pagehide", left);
    return () => window.removeEventListener("pagehide", left);
  }, []);
  return (
    <>
      <span className="hidden print:inline" aria-hidden>
        {value || placeholder}
      </span>
      <input
        ref={field}
        className="input input-sm w-full min-w-28"
        aria-label={label}
        maxLength={longest}
        placeholder={placeholder}
        list={list}
        defaultValue={value}
        onChange={() => {
          typed.current = true;
        }}
        onBlur={(event) => done(event.target)}
        onKeyDown={(event) => event.key === "Enter" && done(event.currentTarget)}
      />
    </>
  );
}
