/** Has the files of this page kept, so that it can be read without a connection; browsers without it do as before. */
export async function keepOffline(files: string[]): Promise<void> {
  const workers = navigator.serviceWorker; // there is none on a page that came over a plain line
  if (!workers) return;
  const [, kind] = window.location.pathname.split("/");
  try {
    const worker = await workers.register("/student-worker.js", { scope: `/${kind}/` });
    await workers.ready;
    const here = [
      ...document.querySelectorAll<HTMLScriptElement | HTMLLinkElement>("script[src], link[href]"),
    ].map((each) => ("src" in each ? each.src : each.href));
    const used = performance.getEntriesByType("resource").map(({ name }) => name);
    const ours = [...here, ...used].filter((url) => url.startsWith(`${window.location.origin}/static/`));
    worker.active?.postMessage({ keep: [...new Set([window.location.href, ...ours, ...files])] });
  } catch {
    // It is a convenience: with a connection all is read as before.
  }
}
