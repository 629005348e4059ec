const PART = 0x8000;

/** Bytes as text that JSON carries. */
export function base64(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += PART)
    text += String.fromCharCode(...bytes.subarray(at, at + PART));
  return btoa(text);
}
