import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { type ApiError, api, got, type Schemas } from "./client";
import type { paths } from "./schema";

export type SwingRow = Schemas["SwingRow"];
export type Student = Schemas["StudentOut"];
export type Reference = Schemas["ReferenceOut"];
export type ClipOut = Schemas["ClipOut"];

/** The address of one frame as a picture; it changes when the clip is turned round. */
export function stillOf(clip: Pick<ClipOut, "id" | "flipped">, frame: number, height?: number): string {
  const asked = new URLSearchParams(clip.flipped ? { flipped: "1" } : {});
  if (height) asked.set("height", String(height));
  return `/api/clips/${clip.id}/stills/${frame}.jpg?${asked}`;
}

const CLIP_POLL_MS = 700;

const busy = (clips: ClipOut[]) => clips.some((clip) => clip.state === "waiting" || clip.state === "working");

export const meQuery = queryOptions({
  queryKey: ["me"],
  queryFn: () => got(api.GET("/api/me")),
  staleTime: 60_000,
});

/** A page of a list, found by words. */
export interface PageOf {
  q?: string;
  limit?: number;
  offset?: number;
}

export type StudentsWanted = NonNullable<paths["/api/students"]["get"]["parameters"]["query"]>;

/** All that a list can give at once: for menus. */
const ALL: PageOf = { limit: 500 };

export const studentsQuery = (query: StudentsWanted = ALL) =>
  queryOptions({
    queryKey: ["students", query],
    queryFn: () => got(api.GET("/api/students", { params: { query } })),
    placeholderData: keepPreviousData,
  });

/** Who waits for an answer. */
export const waitingQuery = queryOptions({
  queryKey: ["waiting"],
  queryFn: () => got(api.GET("/api/waiting")),
  refetchInterval: 60_000,
});

export const requestsQuery = queryOptions({
  queryKey: ["requests"],
  queryFn: () => got(api.GET("/api/requests")),
});

export const rangeModelsQuery = queryOptions({
  queryKey: ["range-models"],
  queryFn: () => got(api.GET("/api/range-models")),
});

export const binQuery = queryOptions({
  queryKey: ["bin"],
  queryFn: () => got(api.GET("/api/bin")),
  refetchOnMount: "always",
});

export const roomQuery = queryOptions({ queryKey: ["room"], queryFn: () => got(api.GET("/api/room")) });

export const modelsQuery = queryOptions({
  queryKey: ["models"],
  queryFn: () => got(api.GET("/api/teaching-models")),
  staleTime: Number.POSITIVE_INFINITY,
});

const fetchBook = () => got(api.GET("/api/book"));
export type Book = Awaited<ReturnType<typeof fetchBook>>;

/** What there is to teach by, one's own pages among it. */
export const bookQuery = queryOptions({
  queryKey: ["book"],
  queryFn: fetchBook,
  staleTime: 5 * 60_000,
});

/** What was chosen for a swing's lesson, as its student reads it. */
export const planQuery = (swingId: string) =>
  queryOptions({
    queryKey: ["plan", swingId],
    queryFn: () => got(api.GET("/api/swings/{id}/plan", { params: { path: { id: swingId } } })),
    refetchOnMount: "always",
  });

export const bodyQuery = (studentId: string) =>
  queryOptions({
    queryKey: ["body", studentId],
    queryFn: () => got(api.GET("/api/students/{id}/body", { params: { path: { id: studentId } } })),
    refetchOnMount: "always",
  });

export const studentQuery = (id: string) =>
  queryOptions({
    queryKey: ["student", id],
    queryFn: () => got(api.GET("/api/students/{id}", { params: { path: { id } } })),
  });

export const notesQuery = (id: string) =>
  queryOptions({
    queryKey: ["notes", id],
    queryFn: () => got(api.GET("/api/students/{id}/notes", { params: { path: { id } } })),
  });

/** What has become of the goals of a student's lessons. */
export const hoursQuery = (id: string) =>
  queryOptions({
    queryKey: ["hours", id],
    queryFn: () =>
      got(api.GET("/api/students/{id}/hours", { params: { path: { id }, query: { limit: 50 } } })),
    refetchOnMount: "always",
  });

/** The log is written a moment after a mark was put. */
const LADDER_POLL_MS = 15_000;
const BEING_READ_POLL_MS = 1000; // somebody stands there and waits for the numbers

export const hourQuery = (id: string) =>
  queryOptions({
    queryKey: ["hour", id],
    queryFn: () => got(api.GET("/api/hours/{id}", { params: { path: { id } } })),
    refetchInterval: ({ state: { data } }) =>
      data?.tries.some(({ looking }) => looking) ? BEING_READ_POLL_MS : LADDER_POLL_MS,
  });

export const lineQuery = (id: string) =>
  queryOptions({
    queryKey: ["hour", id, "line"],
    queryFn: () => got(api.GET("/api/hours/{id}/line", { params: { path: { id } } })),
  });

export const goalsQuery = (id: string) =>
  queryOptions({
    queryKey: ["goals", id],
    queryFn: () => got(api.GET("/api/students/{id}/goals", { params: { path: { id } } })),
    refetchOnMount: "always",
  });

export type TrendsWanted = NonNullable<paths["/api/students/{id}/trends"]["get"]["parameters"]["query"]>;

/** All that was read of a student's swings of one kind, over time. */
export const trendsQuery = (id: string, query: TrendsWanted) =>
  queryOptions({
    queryKey: ["trends", id, query],
    queryFn: () => got(api.GET("/api/students/{id}/trends", { params: { path: { id }, query } })),
    placeholderData: (before, of) => (of?.queryKey[1] === id ? before : undefined),
    refetchOnMount: "always",
  });

export type ChangeWanted = NonNullable<
  paths["/api/students/{id}/change/{reading}/{at}"]["get"]["parameters"]["query"]
>;

/** Whether one reading of a student changed. */
export const changeQuery = (id: string, reading: string, at: string, query: ChangeWanted) =>
  queryOptions({
    queryKey: ["trends", id, "change", reading, at, query],
    queryFn: () =>
      got(
        api.GET("/api/students/{id}/change/{reading}/{at}", { params: { path: { id, reading, at }, query } }),
      ),
  });

export type SwingsWanted = NonNullable<paths["/api/swings"]["get"]["parameters"]["query"]>;

export const swingsQuery = (query: SwingsWanted) =>
  queryOptions({
    queryKey: ["swings", query],
    queryFn: () => got(api.GET("/api/swings", { params: { query } })),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) =>
      state.data?.items.some((row) => busy(row.clips)) ? CLIP_POLL_MS : 30_000,
  });

export const shelfQuery = (query: PageOf = ALL) =>
  queryOptions({
    queryKey: ["shelf", query],
    queryFn: () => got(api.GET("/api/shelf", { params: { query } })),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.items.some((row) => busy(row.clips)) ? CLIP_POLL_MS : false),
  });

/** What laboratories' markers stand for, as it was said before. */
export const launchProfilesQuery = queryOptions({
  queryKey: ["launch-profiles"],
  queryFn: () => got(api.GET("/api/launch-profiles")),
});

export const markerProfilesQuery = queryOptions({
  queryKey: ["marker-profiles"],
  queryFn: () => got(api.GET("/api/shelf/laboratory/profiles")),
});

/** Students read their lessons while nothing happens here: ask again at every visit and now and then. */
const READ_POLL_MS = 10_000;

const unread = (lesson: { sent_at?: string | null; first_read_at?: string | null }) =>
  Boolean(lesson.sent_at) && !lesson.first_read_at;

export type LessonsWanted = NonNullable<paths["/api/lessons"]["get"]["parameters"]["query"]>;

export const lessonsQuery = (query: LessonsWanted) =>
  queryOptions({
    queryKey: ["lessons", query],
    queryFn: () => got(api.GET("/api/lessons", { params: { query } })),
    placeholderData: keepPreviousData,
    refetchOnMount: "always",
    refetchInterval: ({ state }) => (state.data?.items.some(unread) ? READ_POLL_MS : false),
  });

export const swingQuery = (id: string) =>
  queryOptions({
    queryKey: ["swing", id],
    queryFn: () => got(api.GET("/api/swings/{id}", { params: { path: { id } } })),
    refetchInterval: (query) =>
      query.state.data?.clips.some((clip) => clip.looking || clip.closer !== null || busy([clip]))
        ? CLIP_POLL_MS
        : false,
  });

export const proposedMarksQuery = (
  { id: clipId, flipped, closer }: Pick<Schemas["BenchClip"], "id" | "flipped" | "closer">,
  frame: number,
  on: string, // names what is on the clip: hands make proposals better
) =>
  queryOptions({
    queryKey: ["proposed-marks", clipId, frame, flipped, closer === null, on],
    queryFn: () =>
      got(api.GET("/api/clips/{id}/proposed-marks/{frame}", { params: { path: { id: clipId, frame } } })),
    placeholderData: (before, query) =>
      query?.queryKey[1] === clipId && query.queryKey[2] === frame ? before : undefined,
    staleTime: 60_000,
  });

/** What a machine reads where nobody has looked; asked anew whenever what is on the swing has changed. */
export const firstLookQuery = (id: string, on: string) =>
  queryOptions({
    queryKey: ["first-look", id, on],
    queryFn: () => got(api.GET("/api/swings/{id}/first-look", { params: { path: { id } } })),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });

/** What is the same for every swing: it is fetched once. */
export const catalogueQuery = queryOptions({
  queryKey: ["catalogue"],
  queryFn: () => got(api.GET("/api/catalogue")),
  staleTime: Number.POSITIVE_INFINITY,
});

/** What was done on a swing before it was opened here. */
export const historyQuery = (id: string) =>
  queryOptions({
    queryKey: ["history", id],
    queryFn: () => got(api.GET("/api/swings/{id}/history", { params: { path: { id } } })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

const TRACK_POLL_MS = 600;
const TRACK_PATIENCE = 60; // asked so often, the worker is busy or gone: ask more rarely

const COURSE_POLL_MS = 3000; // all curves are measured for each answer

/** How soon to ask again while a worker follows marks anew. */
const whileStale =
  (pollMs: number) =>
  ({ state }: { state: { data?: { stale: boolean }; dataUpdateCount: number } }) => {
    if (!state.data?.stale) return false;
    return state.dataUpdateCount < TRACK_PATIENCE ? pollMs : 10 * pollMs;
  };

export const tracksQuery = (clipId: string, version: number) =>
  queryOptions({
    queryKey: ["tracks", clipId, version],
    queryFn: () => got(api.GET("/api/clips/{id}/tracks", { params: { path: { id: clipId } } })),
    // Until the new ones are here the clip's own old ones stand; never another clip's.
    placeholderData: (before, query) => (query?.queryKey[1] === clipId ? before : undefined),
    refetchInterval: whileStale(TRACK_POLL_MS),
  });

export const pathQuery = (clipId: string, name: string, version: number) =>
  queryOptions({
    queryKey: ["path", clipId, name, version],
    queryFn: () => got(api.GET("/api/clips/{id}/paths/{name}", { params: { path: { id: clipId, name } } })),
  });

export const doubtsQuery = (swingId: string, versions: string) =>
  queryOptions({
    queryKey: ["doubts", swingId, versions],
    queryFn: () => got(api.GET("/api/swings/{id}/doubts", { params: { path: { id: swingId } } })),
    placeholderData: keepPreviousData,
  });

export const sameSetupQuery = (clipId: string) =>
  queryOptions({
    queryKey: ["same-setup", clipId],
    queryFn: () => got(api.GET("/api/clips/{id}/same-setup", { params: { path: { id: clipId } } })),
  });

export const matSizesQuery = (clipId: string) =>
  queryOptions({
    queryKey: ["mat-sizes", clipId],
    queryFn: () => got(api.GET("/api/clips/{id}/mat-sizes", { params: { path: { id: clipId } } })),
  });

export const lessonQuery = (id: string) =>
  queryOptions({
    queryKey: ["lesson", id],
    queryFn: () => got(api.GET("/api/lessons/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
    refetchInterval: (query) => (query.state.data && unread(query.state.data) ? READ_POLL_MS : false),
  });

/** A swing over time, at the versions of its clips. */
export const courseQuery = (swingId: string, versions: string, reading: string[]) =>
  queryOptions({
    queryKey: ["course", swingId, versions, reading],
    queryFn: () =>
      got(api.GET("/api/swings/{id}/course", { params: { path: { id: swingId }, query: { reading } } })),
    // While an edit is measured the curve before it stands; never another swing's.
    placeholderData: (before, query) => (query?.queryKey[1] === swingId ? before : undefined),
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: whileStale(COURSE_POLL_MS),
  });

/** Where the intervals of some readings come from, in a state of the swing. */
export const budgetsQuery = (swingId: string, state: string, reading: string[]) =>
  queryOptions({
    queryKey: ["budgets", swingId, state, reading],
    queryFn: () =>
      got(api.GET("/api/swings/{id}/budgets", { params: { path: { id: swingId }, query: { reading } } })),
    // While an edit is measured the shares before it stand; never another swing's.
    placeholderData: (before, query) => (query?.queryKey[1] === swingId ? before : undefined),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const earlierQuery = (swingId: string) =>
  queryOptions({
    queryKey: ["earlier", swingId],
    queryFn: () => got(api.GET("/api/swings/{id}/earlier", { params: { path: { id: swingId } } })),
    enabled: swingId !== "",
    staleTime: 60_000,
  });

/** What a swing means to its student's teaching model, or to another; `state` names what it was read from. */
export const judgementQuery = (id: string, state: string, units: string, model = "") =>
  queryOptions({
    queryKey: ["judgement", id, state, units, model],
    queryFn: () => got(api.GET("/api/swings/{id}/judgement", { params: { path: { id }, query: { model } } })),
    enabled: id !== "" && state !== "",
    // What stood a moment ago stays meanwhile, never that of another swing or model.
    placeholderData: (before, query) =>
      query?.queryKey[1] === id && query.queryKey[4] === model ? before : undefined,
    staleTime: 30_000,
  });

const WALK_POLL_MS = 1500;

/** A lesson's walk, as it is recorded and mended; asked again while a machine makes it. */
export const walkQuery = (lessonId: string) =>
  queryOptions({
    queryKey: ["walk", lessonId],
    queryFn: () =>
      got(api.GET("/api/lessons/{id}/walk", { params: { path: { id: lessonId } } })).catch(
        (error: ApiError) => {
          if (error.status === 404) return null; // nobody has recorded anything
          throw error;
        },
      ),
    refetchInterval: ({ state: { data } }) =>
      data && (data.making || data.film_progress !== null) ? WALK_POLL_MS : false,
  });
