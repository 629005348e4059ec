import { X } from "lucide-react";
import { type ReactNode, useEffect, useRef } from "react";

/** A panel for a form that slides over the screen; Escape closes it. */
export function Sheet(props: { title: string; close: () => void; children: ReactNode; wide?: boolean }) {
  const { title, close, children, wide } = props;
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    if (!dialog.current?.open) dialog.current?.showModal();
  }, []);
  return (
    <dialog ref={dialog} className="modal modal-end" onClose={close} aria-label={title}>
      <div className={`modal-box h-full max-h-full w-full ${wide ? "max-w-3xl" : "max-w-md"}`}>
        <div className="mb-4 flex items-center justify-between">
          <h2 className="text-xl font-bold">{title}</h2>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Close"
            onClick={close}
          >
            <X size={18} aria-hidden />
          </button>
        </div>
        {children}
      </div>
    </dialog>
  );
}
