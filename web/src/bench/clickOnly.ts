import type { MouseEvent } from "react";

/** For buttons of the bench: one that was only clicked does not keep the arrows and the space bar from the swing. */
export const clickOnly = { onMouseDown: (event: MouseEvent) => event.preventDefault() };
