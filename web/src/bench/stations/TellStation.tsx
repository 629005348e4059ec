import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got } from "../../api/client";
import { lessonQuery, swingQuery } from "../../api/queries";
import { useLessonActions } from "../../lesson/useLessonActions";
import { WrittenLesson } from "../../lesson/WrittenLesson";
import { Trouble } from "../../parts/Trouble";
import type { Units } from "../../units";
import { useBench } from "../benchContext";
import { hint } from "../commands/table";
import { WalkPanel } from "../walk/WalkPanel";

interface Props {
  units: Units;
  pick: () => void;
  said: string; // of the frame that was put into the lesson last
}

/** The lesson beside the stages: frames are put into it, and words under them, without leaving the bench. */
export function TellStation({ units, pick, said }: Props) {
  const swing = useBench((bench) => bench.sides.student?.swing);
  if (!swing)
    return <p className="plate p-3 text-sm">A reference swing gets no lesson: open a student's swing.</p>;
  return (
    <section aria-label="Lesson" className="flex min-h-0 flex-1 flex-col gap-2">
      <div className="flex items-center gap-2">
        <button type="button" className="btn btn-primary btn-sm" onClick={pick} title={hint("pick")}>
          Put this frame in <kbd className="num opacity-80">P</kbd>
        </button>
        <p className="min-w-0 text-sm" role="status">
          {said}
        </p>
      </div>
      <div className="plate min-h-0 flex-1 relative overflow-y-auto p-3">
        {swing.lesson ? <Written id={swing.lesson} units={units} /> : <Begin swingId={swing.id} />}
      </div>
    </section>
  );
}

function Written({ id, units }: { id: string; units: Units }) {
  const lesson = useQuery(lessonQuery(id));
  const actions = useLessonActions(id, lesson.data?.swing_id);
  if (lesson.error && !lesson.data) return <Trouble error={lesson.error} retry={lesson.refetch} />;
  if (!lesson.data) return <p>Fetching the lesson…</p>;
  return (
    <>
      {actions.error && <Trouble error={actions.error} />}
      <WalkPanel lesson={lesson.data} />
      <WrittenLesson lesson={lesson.data} units={units} actions={actions} />
      <Link className="link mt-3 inline-block text-sm" to={`/lessons/${id}`}>
        See it as the student will
      </Link>
    </>
  );
}

/** A swing whose lesson nobody has begun. */
function Begin({ swingId }: { swingId: string }) {
  const queries = useQueryClient();
  const begin = useMutation({
    mutationFn: () =>
      got(api.POST("/api/swings/{swing_id}/lesson", { params: { path: { swing_id: swingId } } })),
    onSuccess: () => queries.invalidateQueries(swingQuery(swingId)),
  });
  return (
    <div className="grid gap-3 text-sm">
      <p>
        Nothing is written yet. Go to the frame that tells it best and put it in: the gauges that stand on the
        stage go with it.
      </p>
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        disabled={begin.isPending}
        onClick={() => begin.mutate()}
      >
        Begin with words
      </button>
      {begin.error && <p role="alert">{begin.error.message}</p>}
    </div>
  );
}
