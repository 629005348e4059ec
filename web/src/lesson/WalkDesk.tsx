import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../api/client";
import { meQuery } from "../api/queries";
import type { Cut } from "../walk/cut";
import { served } from "../walk/player/files";
import { WalkPlayer } from "../walk/player/WalkPlayer";
import { minutes } from "../walk/words";
import type { Lesson } from "./useLessonActions";
import { WalkMending } from "./WalkMending";

type Walk = Schemas["WalkOut"];

/** A lesson's walk: heard as the student will hear it, and mended. */
export function WalkDesk(props: {
  walk: Walk;
  lesson: Lesson;
  sayAnew?: (cut: Cut) => void; // where something can be said
}) {
  const { walk, lesson, sayAnew } = props;
  const units = useQuery(meQuery).data?.units ?? "cm";
  const path = { id: lesson.id };
  const made = walk.making ? 0 : walk.changed;
  const played = useQuery({
    queryKey: ["walk-played", lesson.id, made],
    queryFn: () => got(api.GET("/api/lessons/{id}/walk/played", { params: { path } })),
    enabled: !walk.making && walk.length_ms > 0,
    placeholderData: (before) => before,
  });
  const said = walk.takes.reduce((sum, take) => sum + take.length_ms, 0);
  const troubles = [walk.trouble, ...walk.takes.map(({ trouble }) => trouble)].filter(Boolean);
  return (
    <div className="grid gap-2">
      {troubles.map((trouble) => (
        <p key={trouble} role="alert" className="text-sm">
          {trouble}
        </p>
      ))}
      {walk.making && (
        <p className="text-sm" role="status">
          {minutes(said)} recorded. It is being made ready …
        </p>
      )}
      {played.data && (
        <WalkPlayer
          walk={played.data}
          files={served(`/api/lessons/${lesson.id}/walk`, played.data)}
          units={units}
          hand={lesson.student.hand}
          beneath={
            lesson.sent_at === null
              ? (voice) => <WalkMending walk={walk} played={played.data} voice={voice} sayAnew={sayAnew} />
              : undefined
          }
        />
      )}
      {played.data && !walk.making && <Film walk={walk} />}
    </div>
  );
}

/** The walk as a film to take along: made when it is asked for, and by itself once the lesson is sent. */
function Film({ walk }: { walk: Walk }) {
  const queries = useQueryClient();
  const path = { id: walk.lesson_id };
  const ask = useMutation({
    mutationFn: () => got(api.POST("/api/lessons/{id}/walk/film", { params: { path } })),
    onSuccess: () => queries.setQueryData(["walk", walk.lesson_id], { ...walk, film_progress: 0 }),
  });
  if (walk.film)
    return (
      <a className="link text-sm" href={`/api/lessons/${walk.lesson_id}/walk/film.mp4`} download>
        Save it as a film (MP4)
      </a>
    );
  if (walk.film_progress !== null)
    return (
      <p className="text-sm" role="status">
        The film is being made: {walk.film_progress} %
      </p>
    );
  return (
    <div>
      <button type="button" className="btn btn-sm" disabled={ask.isPending} onClick={() => ask.mutate()}>
        Make a film of it (MP4)
      </button>
      {ask.error && <p role="alert">{ask.error.message}</p>}
    </div>
  );
}
