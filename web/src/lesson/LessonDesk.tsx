import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got } from "../api/client";
import { lessonQuery, meQuery } from "../api/queries";
import { BenchLink } from "../parts/BenchLink";
import { KeepInMind } from "../parts/KeepInMind";
import { Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { SheetView } from "./SheetView";
import { useLessonActions } from "./useLessonActions";
import { WrittenLesson } from "./WrittenLesson";

/** Writing the lesson of a swing beside what the student will read. */
export function LessonDesk() {
  const { id = "" } = useParams();
  const lesson = useQuery(lessonQuery(id));
  const units = useQuery(meQuery).data?.units ?? "cm";
  const actions = useLessonActions(id, lesson.data?.swing_id);
  if (lesson.error && !lesson.data) return <Trouble error={lesson.error} retry={lesson.refetch} />;
  if (!lesson.data) return <p className="p-6">Fetching the lesson…</p>;
  return (
    <Page
      title={`Lesson for ${lesson.data.student.name}`}
      actions={
        <BenchLink className="btn btn-sm" id={lesson.data.swing_id} search="?station=tell">
          Back to the bench
        </BenchLink>
      }
    >
      <div className="mb-3">
        <KeepInMind hurts={lesson.data.what_hurts} history={lesson.data.student.history} />
      </div>
      {actions.error && <Trouble error={actions.error} />}
      <div className="grid gap-5 lg:grid-cols-[1fr_400px]">
        <div className="min-w-0">
          <WrittenLesson lesson={lesson.data} units={units} actions={actions} />
        </div>
        <Preview id={id} />
      </div>
    </Page>
  );
}

function Preview({ id }: { id: string }) {
  const sheet = useQuery({
    queryKey: ["sheet-preview", id],
    queryFn: () => got(api.GET("/api/lessons/{id}/sheet", { params: { path: { id } } })),
  });
  return (
    <aside aria-label="Preview of the lesson sheet">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="text-lg font-semibold">What the student reads</h2>
        <a className="link text-sm" href={`/api/lessons/${id}/lesson.pdf`} target="_blank" rel="noreferrer">
          On paper
        </a>
      </div>
      <section
        aria-label="The sheet, as on a phone"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, so the keys must reach it
        tabIndex={0}
        className="max-h-[calc(100vh-170px)] overflow-y-auto rounded-lg border-[6px] border-pine"
      >
        {sheet.data && (
          <SheetView
            sheet={sheet.data}
            still={(frame) => `/api/lessons/${id}/frames/${frame.id}.jpg`}
            walk={`/api/lessons/${id}/walk`}
          />
        )}
      </section>
    </aside>
  );
}
