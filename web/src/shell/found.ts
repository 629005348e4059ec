/** What has all the words in its own, where they stand nearest to the beginning first. */
export function found<Of extends { words: string }>(all: Of[], wanted: string): Of[] {
  const words = wanted.toLowerCase().trim().split(/\s+/);
  const places = (text: string) => words.map((word) => text.toLowerCase().indexOf(word));
  return all
    .filter((each) => places(each.words).every((place) => place >= 0))
    .sort((a, b) => Math.min(...places(a.words)) - Math.min(...places(b.words)));
}
