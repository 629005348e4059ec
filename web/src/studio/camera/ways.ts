import { api, got, type Schemas } from "../../api/client";
import { uploadOne } from "../../send/clipUploads";
import { SHELF } from "../../send/whom";
import type { KeptTry } from "./keptTries";

/** How tries come to the server, and under which name they are kept until then. */
export interface Way {
  shelf: string;
  upload: (kept: KeptTry, clip: File, told: (share: number) => void) => Promise<string>;
  film: (kept: KeptTry, body: Schemas["FilmedIn"]) => Promise<unknown>;
}

/** An instructor's own: signed in, to any of their hours. */
export const ownWay = (user: string): Way => ({
  shelf: user,
  upload: (kept, clip, told) => uploadOne("/api/uploads", clip, kept.student, told),
  film: ({ hour }, body) => got(api.POST("/api/hours/{id}/filmed", { params: { path: { id: hour } }, body })),
});

/** A phone's: by the code of one hour's open line. */
export const phoneWay = (token: string): Way => ({
  shelf: `film.${token}`,
  upload: (_, clip, told) => uploadOne(`/api/film/${token}/uploads`, clip, SHELF, told),
  film: (_, body) => got(api.POST("/api/film/{token}", { params: { path: { token } }, body })),
});
