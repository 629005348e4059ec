import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { lessonsQuery } from "../api/queries";
import { Empty, Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";

export function Lessons() {
  const lessons = useQuery(lessonsQuery);
  return (
    <Page title="Lessons">
      {lessons.error && !lessons.data && <Trouble error={lessons.error} retry={lessons.refetch} />}
      {lessons.data?.length === 0 && (
        <Empty>No lesson yet. Open a swing from the inbox and pick its first frame.</Empty>
      )}
      <ul className="grid gap-2">
        {lessons.data?.map((lesson) => (
          <li key={lesson.id} className="plate flex items-center gap-4 p-3">
            <Link to={`/lessons/${lesson.id}`} className="font-semibold hover:underline">
              {lesson.student.name}: {lesson.title}
            </Link>
            <span className="ml-auto text-sm">
              {lesson.revoked_at
                ? "link taken back"
                : lesson.first_read_at
                  ? `read ${when(lesson.first_read_at)}`
                  : lesson.sent_at
                    ? `sent ${when(lesson.sent_at)}, not read yet`
                    : "draft"}
            </span>
          </li>
        ))}
      </ul>
    </Page>
  );
}
