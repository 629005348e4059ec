import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../api/client";
import { outbox, useOutbox } from "../outbox";
import { lessonLane, pickLane } from "../outbox/posts";
import { done } from "../shell/undo";

export type Lesson = Schemas["LessonOut"];
export type Frame = Schemas["LessonFrameOut"];

/** Everything that can be done to a lesson; each answer is the lesson as it now is. */
export function useLessonActions(id: string, swingId: string | undefined) {
  const queries = useQueryClient();
  const path = { id };
  const act = useMutation({
    mutationFn: (doing: () => Promise<Lesson>) => doing(),
    onSuccess: (lesson) => {
      queries.setQueryData(["lesson", id], lesson);
      queries.invalidateQueries({ queryKey: ["sheet-preview", id] });
      queries.invalidateQueries({ queryKey: ["lessons"] });
      queries.invalidateQueries({ queryKey: ["swings"] });
      queries.invalidateQueries({ queryKey: ["plan"] });
    },
    scope: { id: `lesson ${id}` }, // one after the other, in the order they were made
  });
  const run = (doing: () => Promise<Lesson>) => act.mutate(doing);
  const framePath = (frame: Frame) => ({ id, frame_id: frame.id });
  const changeFrame = (frame: Frame, body: Schemas["LessonFrameChange"]) =>
    run(() =>
      got(api.PATCH("/api/lessons/{id}/frames/{frame_id}", { params: { path: framePath(frame) }, body })),
    );
  /** The frame as it was: its words, its place, and what of it the student is not shown. */
  const putBack = async (frame: Frame, clip_id: string) => {
    const { frame: number, words, left_out, position, drawn } = frame;
    const added = { id: crypto.randomUUID(), clip_id, frame: number, words, chalk: drawn.chalk };
    const body = { ...added, gauges: drawn.gauges.map((gauge) => gauge.id) };
    await got(api.POST("/api/lessons/{id}/frames", { params: { path }, body }));
    const again = { path: { id, frame_id: added.id } };
    return got(
      api.PATCH("/api/lessons/{id}/frames/{frame_id}", { params: again, body: { left_out, position } }),
    );
  };
  // Words and frames that are still on their way belong to what is sent.
  const lanes = swingId ? [lessonLane(id), pickLane(swingId)] : [lessonLane(id)];
  const unsaved = useOutbox(
    ({ waiting }) => waiting > 0 && lanes.some((lane) => outbox().unsent(lane).length > 0),
  );
  return {
    error: act.error,
    busy: act.isPending,
    unsaved,
    change: (body: Schemas["LessonChange"]) =>
      run(() => got(api.PATCH("/api/lessons/{id}", { params: { path }, body }))),
    putTries: (hour_id: string | null) =>
      run(() => got(api.PUT("/api/lessons/{id}/tries", { params: { path }, body: { hour_id } }))),
    move: (frame: Frame, position: number) => changeFrame(frame, { position }),
    leaveOut: (frame: Frame, left_out: string[]) => changeFrame(frame, { left_out }),
    remove: (frame: Frame) =>
      run(async () => {
        const lesson = await got(
          api.DELETE("/api/lessons/{id}/frames/{frame_id}", { params: { path: framePath(frame) } }),
        );
        const { clip_id } = frame;
        if (clip_id) done(`Frame ${frame.frame} is taken out.`, () => run(() => putBack(frame, clip_id)));
        return lesson;
      }),
    send: () => run(() => got(api.POST("/api/lessons/{id}/send", { params: { path } }))),
    takeBack: () => run(() => got(api.POST("/api/lessons/{id}/take-back", { params: { path } }))),
    mailAgain: () => run(() => got(api.POST("/api/lessons/{id}/mail", { params: { path } }))),
    sendLater: (at: string) =>
      run(() => got(api.PUT("/api/lessons/{id}/send-later", { params: { path }, body: { at } }))),
    sendNoMore: () => run(() => got(api.DELETE("/api/lessons/{id}/send-later", { params: { path } }))),
    correct: () => run(() => got(api.POST("/api/lessons/{id}/correction", { params: { path } }))),
    leaveCorrection: () => run(() => got(api.DELETE("/api/lessons/{id}/correction", { params: { path } }))),
    setExpiry: (last_day: string | null) =>
      run(() => got(api.PUT("/api/lessons/{id}/expiry", { params: { path }, body: { last_day } }))),
    revoke: () => run(() => got(api.POST("/api/lessons/{id}/revoke", { params: { path } }))),
    renew: () => run(() => got(api.POST("/api/lessons/{id}/renew", { params: { path } }))),
  };
}

export type Actions = ReturnType<typeof useLessonActions>;
