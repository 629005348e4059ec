import { ImageUp } from "lucide-react";
import type { ReactNode } from "react";

/** A button that asks for a file, and says while it is being looked at. */
export function FileButton(props: {
  accept: string;
  pending: boolean;
  choose: (file: File) => void;
  size: "btn-xs" | "btn-sm";
  children: ReactNode;
}) {
  const { accept, pending, choose, size, children } = props;
  return (
    <label className={`btn ${size} focus-within:outline-2 focus-within:outline-offset-2`}>
      <ImageUp size={14} aria-hidden />
      {pending ? "Being looked at …" : children}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        disabled={pending}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) choose(file);
          event.target.value = "";
        }}
      />
    </label>
  );
}
