import { useQuery } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { type Book, bookQuery, catalogueQuery } from "../api/queries";
import { chosenNow } from "../parts/address";
import { Empty } from "../parts/Page";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { BookPage } from "./BookPage";
import { DrillCard } from "./DrillCard";
import { DrillForm } from "./DrillForm";
import { type Drill, PLACE_WORDS, spoken } from "./words";

const FILTERS = ["fault", "prop", "place", "spare", "hand"] as const;
type Filter = (typeof FILTERS)[number];

/** The drills, found by fault, prop, place, and part of the body to spare; one's own among them. */
export function DrillBook() {
  const book = useQuery(bookQuery);
  const catalogue = useQuery(catalogueQuery);
  const [said, say] = useSearchParams();
  const [writing, setWriting] = useState<Drill | "new" | null>(null);
  const wanted = Object.fromEntries(FILTERS.map((each) => [each, said.get(each) ?? ""])) as Record<
    Filter,
    string
  >;
  const found = book.data?.drills.filter((drill) => fits(drill, wanted)) ?? [];
  return (
    <BookPage
      title="Drill book"
      actions={
        <button type="button" className="btn btn-primary btn-sm" onClick={() => setWriting("new")}>
          <Plus size={16} aria-hidden /> Own drill
        </button>
      }
    >
      {book.error && !book.data && <Trouble error={book.error} retry={book.refetch} />}
      {book.data && (
        <>
          <Filters
            book={book.data}
            wanted={wanted}
            want={(filter, value) =>
              say(
                () => {
                  const next = chosenNow();
                  if (value) next.set(filter, value);
                  else next.delete(filter);
                  return next;
                },
                { replace: true },
              )
            }
          />
          <p className="mb-2 text-sm" role="status">
            {found.length} of {book.data.drills.length} drills. Common practice, no source.
          </p>
          {found.length === 0 && <Empty>No drill is for all of that. Ask for less, or write your own.</Empty>}
          <ul className="grid items-start gap-3 md:grid-cols-2">
            {found.map((drill) => (
              <DrillCard
                key={drill.id}
                drill={drill}
                book={book.data}
                hand={wanted.hand === "left" ? "left" : "right"}
                write={() => setWriting(drill)}
              />
            ))}
          </ul>
          {writing && (
            <Sheet
              title={writing === "new" ? "A drill of your own" : writing.name}
              close={() => setWriting(null)}
            >
              {catalogue.data ? (
                <DrillForm
                  drill={writing === "new" ? undefined : writing}
                  book={book.data}
                  done={() => setWriting(null)}
                />
              ) : catalogue.error ? (
                <Trouble error={catalogue.error} retry={catalogue.refetch} />
              ) : (
                <p role="status">Fetching the readings …</p>
              )}
            </Sheet>
          )}
        </>
      )}
    </BookPage>
  );
}

function fits(drill: Drill, { fault, prop, place, spare }: Record<Filter, string>): boolean {
  if (fault && !drill.faults.includes(fault)) return false;
  if (prop === "none" ? drill.props?.length : prop && !drill.props?.includes(prop)) return false;
  if (place && !drill.places.includes(place as "home")) return false;
  return !spare || ![...(drill.not_for ?? []), ...(drill.loads ?? [])].includes(spare as "neck");
}

interface FiltersProps {
  book: Book;
  wanted: Record<Filter, string>;
  want: (filter: Filter, value: string) => void;
}

function Filters({ book, wanted, want }: FiltersProps) {
  const props = [...new Set(book.drills.flatMap((drill) => drill.props ?? []))].sort();
  const parts = [
    ...new Set(book.drills.flatMap((drill) => [...(drill.not_for ?? []), ...(drill.loads ?? [])])),
  ].sort();
  const against = new Set(book.drills.flatMap(({ faults }) => faults));
  const choices: [Filter, string, [string, string][]][] = [
    ["fault", "Any fault", book.faults.filter(({ id }) => against.has(id)).map(({ id, name }) => [id, name])],
    [
      "prop",
      "Any prop",
      [["none", "nothing at hand"], ...props.map((id): [string, string] => [id, spoken(id)])],
    ],
    ["place", "Anywhere", Object.entries(PLACE_WORDS)],
    ["spare", "Nothing to spare", parts.map((id): [string, string] => [id, `spare the ${spoken(id)}`])],
    ["hand", "Right-handed", [["left", "Left-handed"]]],
  ];
  return (
    <div className="mb-3 flex flex-wrap gap-2">
      {choices.map(([filter, all, options]) => (
        <select
          key={filter}
          className="select select-sm w-auto"
          aria-label={FILTER_WORDS[filter]}
          value={wanted[filter]}
          onChange={(event) => want(filter, event.target.value)}
        >
          <option value="">{all}</option>
          {options.map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      ))}
    </div>
  );
}

const FILTER_WORDS: Record<Filter, string> = {
  fault: "Against which fault",
  prop: "With which prop",
  place: "Where",
  spare: "Which part to spare",
  hand: "For which hand the drawings are",
};
