/** Keeps a habit or a standing in the browser; a full storage only forgets it. */
export function keep(storage: Storage, key: string, value: string): void {
  try {
    storage.setItem(key, value);
  } catch {
    // It is a convenience: what must not be lost goes through the outbox.
  }
}
