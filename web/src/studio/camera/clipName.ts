/** What a try's clips are called, without their ending: by when its ball was struck. */
export const nameOf = (at: number) => `try-${at}`;

/** The name of one, with its ending. */
export const clipName = (at: number, clip: File) => `${nameOf(at)}${clip.name.match(/\.\w+$/)?.[0] ?? ""}`;
