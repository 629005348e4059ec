import type { ReactNode } from "react";

interface ToggleProps {
  on: boolean;
  label: string;
  title: string; // with the key that does the same
  disabled?: boolean;
  onClick: () => void;
  children: ReactNode; // the icon
}

/** A square button that stays down while what it names is on. */
export function Toggle({ on, label, title, disabled, onClick, children }: ToggleProps) {
  return (
    <button
      type="button"
      className={`btn btn-sm btn-square ${on ? "btn-primary" : ""}`}
      aria-pressed={on}
      aria-label={label}
      title={title}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
