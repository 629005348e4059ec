/** Whom a clip is for that shows no student: a reference for the shelf. */
export const SHELF = "shelf";
