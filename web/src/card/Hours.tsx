import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, got } from "../api/client";
import { hoursQuery } from "../api/queries";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";

/** A student's studio hours, and a new one out of the swings of a day. */
export function Hours({ id }: { id: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const hours = useQuery(hoursQuery(id));
  const begin = useMutation({
    mutationFn: (on: string) =>
      got(
        api.POST("/api/students/{id}/hours", {
          params: { path: { id } },
          body: { day: on || null, about: "" },
        }),
      ),
    onSuccess: async (hour) => {
      await queries.invalidateQueries({ queryKey: ["hours", id] });
      navigate(`/hours/${hour.id}`);
    },
  });
  return (
    <>
      {hours.error && !hours.data && <Trouble error={hours.error} retry={hours.refetch} />}
      {hours.data?.count === 0 && (
        <p className="text-sm">
          None yet. An hour holds the tries of one day, and says what each change did to them.
        </p>
      )}
      <ul className="text-sm">
        {hours.data?.items.map((hour) => (
          <li key={hour.id}>
            <Link className="underline" to={`/hours/${hour.id}`}>
              {day(hour.day)}
            </Link>
            : <span className="num">{hour.tries}</span> {hour.tries === 1 ? "try" : "tries"}
            {hour.about && `, ${hour.about}`}
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex items-end gap-2 print:hidden"
        onSubmit={(event) => {
          event.preventDefault();
          begin.mutate(String(new FormData(event.currentTarget).get("day") ?? ""));
        }}
      >
        <label className="text-sm">
          Day of the hour
          <input className="input input-sm block w-36" type="date" name="day" />
        </label>
        <button type="submit" className="btn btn-sm" disabled={begin.isPending}>
          New hour
        </button>
      </form>
      {begin.error && <Trouble error={begin.error} />}
    </>
  );
}
