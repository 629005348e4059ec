import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { studentsQuery } from "../api/queries";
import { Empty } from "../parts/Page";

/** The inbox with nothing in it: the work is done, or it is only about to begin. */
export function NothingWaits({ answered }: { answered: boolean }) {
  const students = useQuery(studentsQuery({ limit: 1, offset: 0 }));
  if (!students.data) return null;
  if (students.data.count === 0)
    return (
      <Empty>
        <p className="text-lg font-semibold">Three steps to the first lesson</p>
        <ol className="mx-auto mt-2 grid max-w-md list-decimal gap-1 pl-6 text-left">
          <li>
            <Link className="link" to="/students">
              Add a student
            </Link>
            : a name will do.
          </li>
          <li>There, “Ask for a swing” gives a link to send; or take a clip in here with “New swing”.</li>
          <li>
            Put the sound swings that come with Tropometer on the{" "}
            <Link className="link" to="/shelf">
              shelf
            </Link>
            , to compare with.
          </li>
        </ol>
      </Empty>
    );
  return (
    <Empty>
      <p className="text-lg font-semibold">
        {answered ? "No swing has come yet." : "Every swing is answered."}
      </p>
      <p className="mt-1">Add a student's clip with “New swing”, or ask a student for one.</p>
    </Empty>
  );
}
