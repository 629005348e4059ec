/** Whose it is, on the dusk of a stage: clay and slate, light enough to be seen there. */
export const INK = { student: "#E58A63", reference: "#8FB4D8", earlier: "#B98870" } as const;
/** The same on the paper of the theme. */
export const PAPER_INK = { student: "var(--student)", reference: "var(--reference)" } as const;
/** The same for words, which need more contrast. */
export const INK_WORDS = { student: "var(--student-words)", reference: "var(--reference)" } as const;
