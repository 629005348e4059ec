import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../api/client";
import { outbox, useOutbox } from "../outbox";
import { lessonLane } from "../outbox/posts";

export type Lesson = Schemas["LessonOut"];
export type Frame = Schemas["LessonFrameOut"];

/** Everything that can be done to a lesson; each answer is the lesson as it now is. */
export function useLessonActions(id: string) {
  const queries = useQueryClient();
  const path = { id };
  const act = useMutation({
    mutationFn: (doing: () => Promise<Lesson>) => doing(),
    onSuccess: (lesson) => {
      queries.setQueryData(["lesson", id], lesson);
      queries.invalidateQueries({ queryKey: ["sheet-preview", id] });
      queries.invalidateQueries({ queryKey: ["lessons"] });
      queries.invalidateQueries({ queryKey: ["swings"] });
    },
    scope: { id: `lesson ${id}` }, // one after the other, in the order they were made
  });
  const run = (doing: () => Promise<Lesson>) => act.mutate(doing);
  const framePath = (frame: Frame) => ({ id, frame_id: frame.id });
  const changeFrame = (frame: Frame, body: Schemas["LessonFrameChange"]) =>
    run(() =>
      got(api.PATCH("/api/lessons/{id}/frames/{frame_id}", { params: { path: framePath(frame) }, body })),
    );
  // Words that are still on their way belong to what is sent.
  const unsaved = useOutbox(({ waiting }) => waiting > 0 && outbox().unsent(lessonLane(id)).length > 0);
  return {
    error: act.error,
    busy: act.isPending,
    unsaved,
    change: (body: Schemas["LessonChange"]) =>
      run(() => got(api.PATCH("/api/lessons/{id}", { params: { path }, body }))),
    move: (frame: Frame, position: number) => changeFrame(frame, { position }),
    leaveOut: (frame: Frame, left_out: string[]) => changeFrame(frame, { left_out }),
    remove: (frame: Frame) =>
      run(() =>
        got(api.DELETE("/api/lessons/{id}/frames/{frame_id}", { params: { path: framePath(frame) } })),
      ),
    send: () => run(() => got(api.POST("/api/lessons/{id}/send", { params: { path } }))),
    takeBack: () => run(() => got(api.POST("/api/lessons/{id}/take-back", { params: { path } }))),
    mailAgain: () => run(() => got(api.POST("/api/lessons/{id}/mail", { params: { path } }))),
    setExpiry: (last_day: string | null) =>
      run(() => got(api.PUT("/api/lessons/{id}/expiry", { params: { path }, body: { last_day } }))),
    revoke: () => run(() => got(api.POST("/api/lessons/{id}/revoke", { params: { path } }))),
    renew: () => run(() => got(api.POST("/api/lessons/{id}/renew", { params: { path } }))),
  };
}

export type Actions = ReturnType<typeof useLessonActions>;
