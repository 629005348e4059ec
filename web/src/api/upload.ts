import { ApiError, csrfToken, said } from "./client";

/** Send a form with a file and tell how far it is, 0 to 1. Fetch cannot report upload progress. */
export function upload<T>(url: string, form: FormData, progress: (share: number) => void): Promise<T> {
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest();
    request.open("POST", url);
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.upload.onprogress = (event) => {
      if (event.lengthComputable) progress(event.loaded / event.total);
    };
    request.onerror = () =>
      failed(new ApiError(0, "The connection broke while sending. The file is still here: send it again."));
    request.onload = () => {
      const body = parsed(request.responseText);
      if (request.status < 300) done(body as T);
      else failed(new ApiError(request.status, body?.detail ?? said(request.status)));
    };
    request.send(form);
  });
}

function parsed(text: string): { detail?: string } | null {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
