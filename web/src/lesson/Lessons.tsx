import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { lessonsQuery } from "../api/queries";
import { kindAsked } from "../lists/kinds";
import { ListFoot } from "../lists/ListFoot";
import { chosenFirst, ListHead } from "../lists/ListHead";
import { useList } from "../lists/useList";
import { Empty, Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";

const STANDS = [
  ["all", "All lessons"],
  ["draft", "Drafts"],
  ["unread", "Sent, not read yet"],
  ["read", "Read"],
] as const;
const ORDERS = [
  ["newest", "Newest first"],
  ["oldest", "Oldest first"],
  ["name", "By student"],
] as const;

/** The lessons that were written. */
export function Lessons() {
  const list = useList();
  const { q, limit, offset, said } = list.wanted;
  const stands = STANDS.find(([each]) => each === said("stands"))?.[0] ?? "all";
  const order = ORDERS.find(([each]) => each === said("order"))?.[0] ?? "newest";
  const { since, until } = kindAsked(list.wanted);
  const days = { ...(since && { since }), ...(until && { until }) };
  const lessons = useQuery(lessonsQuery({ q, stands, order, limit, offset, ...days }));
  return (
    <Page title="Lessons">
      {lessons.error && !lessons.data && <Trouble error={lessons.error} retry={lessons.refetch} />}
      <ListHead
        list={list}
        what="lessons"
        choices={[
          { name: "stands", label: "Which lessons", options: chosenFirst(STANDS) },
          { name: "order", label: "Order", options: chosenFirst(ORDERS) },
        ]}
        days
      />
      {lessons.data?.count === 0 && (
        <Empty>
          {q || stands !== "all" || since || until
            ? "No lesson is found by that."
            : "No lesson yet. Open a swing from the inbox and pick its first frame."}
        </Empty>
      )}
      <ul className="grid gap-2">
        {lessons.data?.items.map((lesson) => (
          <li key={lesson.id} className="plate flex items-center gap-4 p-3">
            <Link to={`/lessons/${lesson.id}`} className="font-semibold hover:underline">
              {lesson.student.name}: {lesson.title}
            </Link>
            <span className="ml-auto text-sm">
              {lesson.revoked_at
                ? "link taken back"
                : lesson.correcting
                  ? "being corrected"
                  : lesson.first_read_at
                    ? `read ${when(lesson.first_read_at)}`
                    : lesson.sent_at
                      ? `sent ${when(lesson.sent_at)}, not read yet`
                      : "draft"}
            </span>
          </li>
        ))}
      </ul>
      {lessons.data && <ListFoot list={list} count={lessons.data.count} />}
    </Page>
  );
}
