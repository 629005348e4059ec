import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import type { Schemas } from "../../api/client";
import { SheetBody } from "../SheetBody";

type LessonSheet = Schemas["LessonSheet"];

/** What a browser takes from its style sheet, in the colours of the day: paper knows no variables inside pictures. */
const COLOURS: Record<string, string> = {
  "var(--student)": "#c4572e",
  "var(--student-words)": "#a8431d",
  "var(--reference)": "#2f5d8a",
  "var(--color-accent)": "#b8892b",
  "var(--color-base-200)": "#f6f3ea",
  "var(--color-base-content)": "#16302b",
  currentColor: "#16302b",
};

/** A sheet as it stands on paper: the same parts as on the screen, but for the walk. `pictures`: where each frame is. */
export function onPaper(sheet: LessonSheet, pictures: Record<string, string>): string {
  const body = createElement(SheetBody, {
    sheet: { ...sheet, walk: null },
    still: (frame) => pictures[frame.id] ?? "",
  });
  // Inside a picture paper knows no style sheet either.
  let markup = renderToStaticMarkup(body).replaceAll("<text ", '<text font-family="JetBrains Mono" ');
  for (const [said, colour] of Object.entries(COLOURS)) markup = markup.replaceAll(said, colour);
  return markup;
}
