/**
 * What is chosen in the address now. What a hook holds is of the last drawing: where the machine is slow, a second
 * choice made from it would take back the first.
 */
export const chosenNow = () => new URLSearchParams(window.location.search);
