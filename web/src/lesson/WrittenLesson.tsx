import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import type { Units } from "../units";
import { Draft } from "./Draft";
import { SentState } from "./SentState";
import type { Actions, Lesson } from "./useLessonActions";

/** A lesson as its instructor has it: a draft to be written in, or what became of it once it was sent. */
export function WrittenLesson({
  lesson,
  units,
  actions,
}: {
  lesson: Lesson;
  units: Units;
  actions: Actions;
}) {
  const begun = useBegun(lesson.id, lesson.sent_at === null);
  if (!begun) return <p>Beginning the lesson…</p>;
  if (lesson.sent_at !== null && !lesson.correcting) return <SentState lesson={lesson} actions={actions} />;
  return <Draft key={`${lesson.id} ${lesson.correcting}`} lesson={lesson} units={units} actions={actions} />;
}

/** A draft is begun from what was found before it is written in; without a connection it is opened as it is. */
function useBegun(id: string, draft: boolean): boolean {
  const queries = useQueryClient();
  const { isFetched } = useQuery({
    queryKey: ["prefilled", id],
    queryFn: async () => {
      const lesson = await got(api.POST("/api/lessons/{id}/prefill", { params: { path: { id } } }));
      await queries.cancelQueries({ queryKey: ["lesson", id] }); // what was asked before knows nothing of it
      queries.setQueryData(["lesson", id], lesson);
      void queries.invalidateQueries({ queryKey: ["sheet-preview", id] });
      return true;
    },
    enabled: draft,
    retry: false,
    gcTime: 0,
  });
  return !draft || isFetched;
}
