import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import { api, got, type Schemas } from "../api/client";
import { useRemoval } from "../bin/useBin";
import { TryPicture } from "../check/TryPicture";
import type { Try } from "../check/tryWords";
import { Trouble } from "../parts/Trouble";
import { day } from "../parts/when";
import { type Units, withSign } from "../units";
import type { Hand } from "../words";

type Said = NonNullable<Schemas["TrySaid"]["said"]>;

const SHOWN = 4;
const VERDICTS = {
  inside: "Machine: inside",
  outside: "Machine: outside",
  unsure: "Machine: cannot be told",
  not_read: "Machine: could not read it",
};
const WHY: Record<Schemas["TryAnswer"]["why"], string> = {
  "": "",
  no_swing: "no swing was seen",
  slowed: "slow motion of which nobody said the rate",
  other_view: "filmed from another side",
  mirrored: "mirrored, or of the other hand",
  cut_off: "the feet are out of the picture",
  refused: "",
};

/** Drills that a student filmed, what a machine alone said of them, and whether that was right. */
export function Tries({ id, units, hand }: { id: string; units: Units; hand: Hand }) {
  const queries = useQueryClient();
  const key = ["tries-of", id];
  const found = useQuery({
    queryKey: key,
    queryFn: () => got(api.GET("/api/students/{id}/tries", { params: { path: { id } } })),
  });
  const say = useMutation({
    mutationFn: ({ of, said }: { of: string; said: Said | null }) =>
      got(api.PUT("/api/swings/{id}/try", { params: { path: { id: of } }, body: { said } })),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  });
  if (found.error && !found.data) return <Trouble error={found.error} retry={found.refetch} />;
  if (!found.data?.tries.length) return null;
  const { tries, looked_at, right } = found.data;
  return (
    <section aria-labelledby="tries" className="mt-3 border-t border-base-content/20 pt-2">
      <h3 id="tries" className="font-semibold">
        Filmed drills
      </h3>
      <p className="text-sm">
        {looked_at === 0
          ? "A machine answered; say whether it was right."
          : `Of ${looked_at} that you looked at, the machine was right in ${right}, over all students.`}
      </p>
      {say.error && <Trouble error={say.error} />}
      <ul className="mt-2 grid gap-3 text-sm">
        {tries.slice(0, SHOWN).map((each) => (
          <li key={each.id} className="flex gap-2 border-t border-base-content/20 pt-2">
            <div className="w-24 shrink-0">
              <TryPicture
                of={each}
                src={`/api/swings/${each.id}/try.jpg?height=480`}
                units={units}
                hand={hand}
                beside
              />
            </div>
            <div className="min-w-0">
              <p>
                {day(each.received_at)}, {each.name}
              </p>
              <p className="font-semibold">
                {each.answer ? VERDICTS[each.answer.answer] : "Not answered yet"}
              </p>
              <p>{detail(each, units)}</p>
              {each.answer && (
                <fieldset className="join mt-1" disabled={say.isPending}>
                  <legend className="sr-only">
                    What you see: {each.name}, {day(each.received_at)}
                  </legend>
                  {(["inside", "outside"] as const).map((said) => (
                    <button
                      key={said}
                      type="button"
                      className={`btn btn-xs join-item ${each.answer?.said === said ? "btn-primary" : ""}`}
                      aria-pressed={each.answer?.said === said}
                      onClick={() =>
                        say.mutate({ of: each.id, said: each.answer?.said === said ? null : said })
                      }
                    >
                      I see: {said}
                    </button>
                  ))}
                </fieldset>
              )}
              <p className="mt-1 flex items-center gap-3 print:hidden">
                <Link className="link" to={`/bench/${each.id}`}>
                  Open on the bench
                </Link>
                <RemoveTry of={each} />
              </p>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

function RemoveTry({ of }: { of: Try }) {
  const title = `${of.name}, ${day(of.received_at)}`;
  const remove = useRemoval(
    "swing",
    title,
    () => got(api.DELETE("/api/swings/{id}", { params: { path: { id: of.id } } })),
    of.id,
  );
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs"
      aria-label={`Remove ${title}`}
      disabled={remove.isPending}
      onClick={() => remove.mutate()}
    >
      <Trash2 size={14} aria-hidden />
    </button>
  );
}

function detail({ answer, state, trouble }: Try, units: Units): string {
  if (state === "failed") return trouble;
  if (!answer) return "";
  const { beyond, give_or_take: reach, unit } = answer;
  if (answer.answer === "not_read") return WHY[answer.why] || answer.reason;
  if (beyond === null || reach === null || unit === "") return "";
  const about = withSign(Math.abs(beyond), unit, units);
  if (answer.answer === "unsure")
    return `about ${about} ${beyond < 0 ? "past the limit" : "inside"}, give or take ${withSign(reach, unit, units)}`;
  return `by about ${about}, at least ${withSign(Math.abs(beyond) - reach, unit, units)}`;
}
