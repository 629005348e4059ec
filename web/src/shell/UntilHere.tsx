/** What the server put into the page: on a slow line it is read while the rest comes. */
const begun = document.getElementById("root")?.innerHTML ?? "";

/** Stands until a student's page is there: the heading that came with it, or a word that it is on its way. */
export function UntilHere() {
  if (!begun) return <main className="p-6">Opening…</main>;
  // biome-ignore lint/security/noDangerouslySetInnerHtml: it is this page's own, as it came
  return <div dangerouslySetInnerHTML={{ __html: begun }} />;
}
