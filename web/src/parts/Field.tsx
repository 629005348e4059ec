import { cloneElement, type ReactElement, useId } from "react";

type Control = ReactElement<{ id?: string; "aria-describedby"?: string }>;

/** A labelled form control with an optional hint. */
export function Field({ label, hint, children }: { label: string; hint?: string; children: Control }) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-1 block text-sm font-medium">
        {label}
      </label>
      {cloneElement(children, { id, "aria-describedby": hint ? `${id}-hint` : undefined })}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-xs opacity-80">
          {hint}
        </p>
      )}
    </div>
  );
}
