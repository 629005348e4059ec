import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, FlipHorizontal2 } from "lucide-react";
import { useState } from "react";
import { ApiError, api, got } from "../api/client";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { FilmingCard } from "../send/FilmingCard";
import { ConnectionNote } from "../shell/ConnectionNote";
import { UntilHere } from "../shell/UntilHere";
import { CheckForm } from "./CheckForm";
import { TryCard } from "./TryCard";
import { FROM_WORDS } from "./tryWords";
import { useTries } from "./useTries";

/** Where a student films a drill and a machine says at once whether it was done so. */
export function CheckPage({ token }: { token: string }) {
  const drillId = decodeURIComponent(window.location.pathname.split("/")[4] ?? "");
  const page = useQuery({
    queryKey: ["page", token],
    queryFn: () => got(api.GET("/api/pages/{token}", { params: { path: { token } } })),
  });
  const tries = useTries(token);
  const [again, setAgain] = useState(0);
  const drill = page.data?.focus.flatMap((each) => each.drills).find((each) => each.id === drillId);
  usePageTitle(drill ? `Check: ${drill.name}` : "Check a drill");
  if (page.error && !page.data)
    return (
      <main className="mx-auto max-w-md p-4">
        <Trouble
          error={page.error}
          retry={page.error instanceof ApiError && page.error.status === 404 ? undefined : page.refetch}
        />
      </main>
    );
  if (!page.data) return <UntilHere />;
  const { hand, units, instructor, checkable } = page.data;
  const shown = (tries.data ?? []).filter((each) => each.drill === drillId);
  const asked = checkable.find((each) => each.drill === drillId);
  const view = drill?.view ?? "face_on";
  return (
    <main className="min-h-full bg-base-100">
      <div className="mx-auto max-w-md px-4 pt-4 pb-10">
        <ConnectionNote kept="What has arrived is kept; it goes on when the connection is back." />
        <a className="btn btn-ghost btn-sm -ml-3" href={`/p/${token}`}>
          <ArrowLeft size={16} aria-hidden /> Your page
        </a>
        {drill && asked ? (
          <>
            <h1 className="mt-1 text-2xl font-bold">{drill.name}: was it right?</h1>
            <p className="mt-1">
              Film one try <strong>{FROM_WORDS[view]}</strong>. A machine measures it and says whether this
              holds: {asked.shows}
            </p>
            <p className="my-2 text-sm">
              It is a machine alone: where it is not sure it says so. {instructor} sees the picture and may
              correct it.
            </p>
            <FilmingCard hand={hand} only={view} folded={shown.length > 0} />
            <CheckForm
              key={again}
              token={token}
              drill={drillId}
              view={view}
              done={() => {
                setAgain(again + 1);
                void tries.refetch();
              }}
            />
            <a className="btn mt-2 w-full" href={`/p/${token}/mirror?drill=${encodeURIComponent(drillId)}`}>
              <FlipHorizontal2 size={18} aria-hidden /> Or film it here, live
            </a>
          </>
        ) : (
          <>
            <h1 className="mt-1 text-2xl font-bold">This drill is not checked by a machine</h1>
            <p className="mt-2">
              It is not in your plan any more, or it asks for more than a phone alone can see. Send{" "}
              {instructor} a swing instead.
            </p>
          </>
        )}
        {tries.error && !tries.data && <Trouble error={tries.error} retry={tries.refetch} />}
        {shown.map((each) => (
          <TryCard
            key={each.id}
            of={each}
            token={token}
            view={view}
            instructor={instructor}
            units={units}
            hand={hand}
          />
        ))}
      </div>
    </main>
  );
}
