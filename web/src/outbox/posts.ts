import { api, detail, type Schemas, said } from "../api/client";
import { connectionLost } from "../api/connection";
import type { SentEdit } from "../bench/edits";
import type { Item, Outcome } from "./outbox";

/** What goes to the server through the outbox. Each may arrive twice, and is done once. */
export type Post =
  | { kind: "edit"; clipId: string; edit: SentEdit }
  | { kind: "lesson"; lessonId: string; change: Schemas["LessonChange"] }
  | { kind: "frame"; lessonId: string; frameId: string; change: Schemas["LessonFrameChange"] }
  | { kind: "pick"; swingId: string; frame: Schemas["LessonFrameIn"] }
  | { kind: "decision"; swingId: string; fault: string; said: Schemas["DecisionIn"] }
  | { kind: "plan"; swingId: string; plan: Schemas["PlanIn"] | null }
  | { kind: "take"; lessonId: string; take: Schemas["TakeIn"] }
  | { kind: "piece"; lessonId: string; takeId: string; piece: Schemas["PieceIn"] }
  | { kind: "cut"; lessonId: string; cut: Schemas["CutIn"] }
  | { kind: "hour"; hourId: string; change: Schemas["HourChange"] }
  | { kind: "rung"; hourId: string; tryId: string; change: Schemas["RungChange"] }
  | { kind: "tick"; token: string; tickId: string; tick: Schemas["Tick"] }
  | { kind: "untick"; token: string; tickId: string; drill: string; day: string }
  | { kind: "ask"; token: string; message: Schemas["MessageIn"] }
  | { kind: "answer"; studentId: string; message: Schemas["AnswerIn"] };

export const clipLane = (clipId: string) => `clip ${clipId}`;
/** Where what is written in a lesson waits, and where the frames that are put into a swing's lesson do. */
export const lessonLane = (lessonId: string) => `lesson ${lessonId}`;
export const pickLane = (swingId: string) => `lesson of ${swingId}`;
/** Where what was decided on a swing waits. */
export const judgingLane = (swingId: string) => `judging of ${swingId}`;

/** Where the pieces of a lesson's walk wait, in the order in which they were said. */
export const walkLane = (lessonId: string) => `walk of ${lessonId}`;

/** Where what is said in a studio hour waits. */
export const hourLane = (hourId: string) => `hour ${hourId}`;

/** Where what a student does on their page waits, and where what is said to a student does. */
export const pageLane = (token: string) => `page ${token}`;
export const threadLane = (studentId: string) => `thread ${studentId}`;

/** Edits of a clip go together; words one by one. */
export const goesTogether = (lane: string) => lane.startsWith("clip ");

/**
 * Which version of a clip is shown, so that the server says what somebody else has changed since; and in
 * which state its swing, so that it answers with what differs from that.
 */
export interface Seen {
  seen: number;
  since: string;
}
export type SeenOf = (clipId: string) => Seen | null;

type Answer = { data?: unknown; error?: unknown; response: Response };

/** Delivers items of one lane, and says how that ended. */
export async function deliver(items: Item<Post>[], seenOf: SeenOf): Promise<Outcome> {
  const [first] = items;
  if (!first) return { kind: "taken", answer: null };
  try {
    return outcomeOf(await sent(first, items, seenOf));
  } catch {
    connectionLost();
    return { kind: "later", because: "offline", reason: "The server cannot be reached." };
  }
}

// A page that is left lets short requests finish; browsers bound their size.
const KEPT_ALIVE_CHARACTERS = 50_000;

async function sent({ id, post: first }: Item<Post>, items: Item<Post>[], seenOf: SeenOf): Promise<Answer> {
  const keepalive = JSON.stringify(items).length < KEPT_ALIVE_CHARACTERS;
  if (first.kind === "edit") {
    const edits = items.flatMap(({ id, post }) => (post.kind === "edit" ? [{ ...post.edit, id }] : []));
    return api.POST("/api/clips/{id}/edits", {
      params: { path: { id: first.clipId } },
      body: { edits, ...seenOf(first.clipId) },
      keepalive,
    });
  }
  if (first.kind === "lesson")
    return api.PATCH("/api/lessons/{id}", {
      params: { path: { id: first.lessonId } },
      body: { ...first.change, id },
      keepalive,
    });
  if (first.kind === "frame")
    return api.PATCH("/api/lessons/{id}/frames/{frame_id}", {
      params: { path: { id: first.lessonId, frame_id: first.frameId } },
      body: { ...first.change, id },
      keepalive,
    });
  if (first.kind === "decision")
    return api.PUT("/api/swings/{id}/decisions/{fault}", {
      params: { path: { id: first.swingId, fault: first.fault } },
      body: { ...first.said, id },
      keepalive,
    });
  if (first.kind === "plan")
    return api.PUT("/api/swings/{id}/plan", {
      params: { path: { id: first.swingId } },
      body: { plan: first.plan, id },
      keepalive,
    });
  if (first.kind === "take")
    return api.POST("/api/lessons/{id}/walk/takes", {
      params: { path: { id: first.lessonId } },
      body: first.take,
      keepalive,
    });
  if (first.kind === "piece")
    return api.POST("/api/lessons/{id}/walk/takes/{take_id}/pieces", {
      params: { path: { id: first.lessonId, take_id: first.takeId } },
      body: first.piece,
      keepalive,
    });
  if (first.kind === "cut")
    return api.PATCH("/api/lessons/{id}/walk", {
      params: { path: { id: first.lessonId } },
      body: { ...first.cut, id },
      keepalive,
    });
  if (first.kind === "hour")
    return api.PATCH("/api/hours/{id}", {
      params: { path: { id: first.hourId } },
      body: { ...first.change, id },
      keepalive,
    });
  if (first.kind === "rung")
    return api.PATCH("/api/hours/{id}/tries/{try_id}", {
      params: { path: { id: first.hourId, try_id: first.tryId } },
      body: { ...first.change, id },
      keepalive,
    });
  if (first.kind === "tick")
    return api.PUT("/api/pages/{token}/practised/{id}", {
      params: { path: { token: first.token, id: first.tickId } },
      body: first.tick,
      keepalive,
    });
  if (first.kind === "untick")
    return api.DELETE("/api/pages/{token}/practised/{id}", {
      params: { path: { token: first.token, id: first.tickId } },
      keepalive,
    });
  if (first.kind === "ask")
    return api.POST("/api/pages/{token}/messages", {
      params: { path: { token: first.token } },
      body: first.message,
      keepalive,
    });
  if (first.kind === "answer")
    return api.POST("/api/students/{id}/messages", {
      params: { path: { id: first.studentId } },
      body: first.message,
      keepalive,
    });
  const opened = await api.POST("/api/swings/{swing_id}/lesson", {
    params: { path: { swing_id: first.swingId } },
  });
  if (!opened.data) return opened;
  return api.POST("/api/lessons/{id}/frames", {
    params: { path: { id: opened.data.id } },
    body: { ...first.frame, id },
  });
}

/** What an answer means for the items it is about. */
export function outcomeOf({ data, error, response: { ok, status } }: Answer): Outcome {
  if (ok) return { kind: "taken", answer: data };
  const reason = detail(error) ?? said(status);
  if (status === 401 || status === 403) return { kind: "later", because: "signed-out", reason };
  // 429 and 503 ask for patience; 502 and 504 are a proxy's word for a server that is away; 507 is a full disk.
  if ([429, 502, 503, 504].includes(status)) return { kind: "later", because: "offline", reason };
  if (status >= 500) return { kind: "later", because: "trouble", reason };
  return { kind: "refused", reason };
}
