import { Popover, PopoverDisclosure, PopoverProvider, usePopoverStore } from "@ariakit/react";
import type { ReactNode } from "react";
import { useDoing } from "./commands/doings";
import { type CommandId, hint } from "./commands/table";

interface Props {
  command: CommandId; // that opens and closes it
  words: string; // on its button
  label?: string; // said in their place
  below?: boolean; // of its button, where that stands at the top
  children: ReactNode;
}

/** A button of the bench that unfolds a small plate; Escape or a click elsewhere folds it. */
export function Menu({ command, words, label, below, children }: Props) {
  const plate = usePopoverStore({ placement: below ? "bottom-end" : "top-end" });
  useDoing(command, () => plate.toggle());
  return (
    <PopoverProvider store={plate}>
      <PopoverDisclosure
        className="btn btn-sm btn-ghost px-2 font-normal"
        aria-label={label}
        title={hint(command)}
      >
        {words}
      </PopoverDisclosure>
      <Popover
        className="plate z-30 p-2 shadow-lg"
        aria-label={label ?? words}
        gutter={4}
        portal
        unmountOnHide
      >
        {children}
      </Popover>
    </PopoverProvider>
  );
}
