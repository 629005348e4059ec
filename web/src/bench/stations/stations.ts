/** The four stations of the work on a swing, in its order. */
export const STATIONS = ["mark", "read", "judge", "tell"] as const;
export type Station = (typeof STATIONS)[number];

export const STATION_WORDS: Record<Station, string> = {
  mark: "Mark",
  read: "Read",
  judge: "Judge",
  tell: "Tell",
};

export const STATION_ABOUT: Record<Station, string> = {
  mark: "Pegs, marks, and what the picture is measured by",
  read: "Every reading on its tape",
  judge: "What stands outside the model's bands",
  tell: "The student's lesson",
};

export const isStation = (word: string | null): word is Station =>
  STATIONS.includes(word as (typeof STATIONS)[number]);
