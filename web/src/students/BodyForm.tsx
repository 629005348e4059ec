import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus, X } from "lucide-react";
import { type FormEvent, useState } from "react";
import { api, got } from "../api/client";
import { bodyQuery, bookQuery, type Student } from "../api/queries";
import { Choices } from "../parts/Choices";
import { Trouble } from "../parts/Trouble";
import {
  type Ache,
  type Body,
  CLUB_WORDS,
  CLUBS,
  MISS_WORDS,
  MISSES,
  NOTHING_KNOWN,
  PARTS,
  partWords,
  TROUBLE_WORDS,
  TROUBLES,
} from "./bodyWords";
import { MotionFields } from "./MotionFields";

/** What hurts, how far it moves, and what usually goes wrong: it decides what is asked and which drills fit. */
export function BodyForm({ student, done }: { student: Student; done: () => void }) {
  const body = useQuery(bodyQuery(student.id));
  const book = useQuery(bookQuery);
  const error = body.error ?? book.error;
  if (!body.data || !book.data || body.isFetching)
    return error ? <Trouble error={error} /> : <p>Opening …</p>;
  return (
    <Fields
      student={student}
      body={{ ...NOTHING_KNOWN, ...body.data }}
      motions={book.data.motions}
      done={done}
    />
  );
}

interface FieldsProps {
  student: Student;
  body: Body;
  motions: Parameters<typeof MotionFields>[0]["motions"];
  done: () => void;
}

function Fields({ student, body, motions, done }: FieldsProps) {
  const queries = useQueryClient();
  const [aches, setAches] = useState<Ache[]>(body.aches);
  const save = useMutation({
    mutationFn: (next: Body) =>
      got(api.PUT("/api/students/{id}/body", { params: { path: { id: student.id } }, body: next })),
    onSuccess: async (saved) => {
      queries.setQueryData(bodyQuery(student.id).queryKey, saved);
      await queries.invalidateQueries({ queryKey: ["judgement"] });
      done();
    },
  });
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const several = (name: string) => form.getAll(name).map(String);
    save.mutate({
      aches,
      motions: motions.flatMap(({ id }) => {
        const degrees = String(form.get(`degrees ${id}`) ?? "").trim();
        if (!degrees) return [];
        return [{ motion: id, degrees: Number(degrees), measured_on: String(form.get(`on ${id}`)) }];
      }),
      misses: several("misses") as Body["misses"],
      good_clubs: several("good_clubs") as Body["good_clubs"],
      bad_clubs: several("bad_clubs") as Body["bad_clubs"],
    });
  };
  return (
    <form onSubmit={submit}>
      <Aches aches={aches} change={setAches} hand={student.hand} />
      <Choices
        legend="Usual miss"
        name="misses"
        ids={MISSES}
        words={(id) => MISS_WORDS[id]}
        chosen={body.misses}
      />
      <Choices
        legend="Goes well"
        name="good_clubs"
        ids={CLUBS}
        words={(id) => CLUB_WORDS[id]}
        chosen={body.good_clubs}
      />
      <Choices
        legend="Does not"
        name="bad_clubs"
        ids={CLUBS}
        words={(id) => CLUB_WORDS[id]}
        chosen={body.bad_clubs}
      />
      <MotionFields motions={motions} measured={body.motions} hand={student.hand} />
      {save.error && <Trouble error={save.error} />}
      <button type="submit" className="btn btn-primary w-full" disabled={save.isPending}>
        Save
      </button>
    </form>
  );
}

interface AchesProps {
  aches: Ache[];
  change: (next: Ache[]) => void;
  hand: Student["hand"];
}

function Aches({ aches, change, hand }: AchesProps) {
  const put = (i: number, next: Partial<Ache>) =>
    change(aches.map((ache, at) => (at === i ? { ...ache, ...next } : ache)));
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 text-sm font-medium">What hurts</legend>
      {aches.map((ache, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place until it is saved
        <div key={i} className="mb-2 border-l-4 border-brass pl-2">
          <div className="flex gap-1">
            <select
              className="select select-sm flex-1"
              aria-label="Which part"
              value={ache.part}
              onChange={(event) => put(i, { part: event.target.value as Ache["part"] })}
            >
              <option value="">the whole person</option>
              {PARTS.map((part) => (
                <option key={part} value={part}>
                  {partWords(part, hand)}
                </option>
              ))}
            </select>
            <select
              className="select select-sm flex-1"
              aria-label="What is the matter"
              value={ache.trouble}
              onChange={(event) => put(i, { trouble: event.target.value as Ache["trouble"] })}
            >
              {TROUBLES.map((trouble) => (
                <option key={trouble} value={trouble}>
                  {TROUBLE_WORDS[trouble]}
                </option>
              ))}
            </select>
            <button
              type="button"
              className="btn btn-ghost btn-sm btn-square"
              aria-label={`Take out ${partWords(ache.part ?? "", hand)}`}
              onClick={() => change(aches.filter((_, at) => at !== i))}
            >
              <X size={14} aria-hidden />
            </button>
          </div>
          <div className="mt-1 flex flex-wrap items-center gap-1 text-xs">
            <input
              className="input input-xs min-w-40 flex-1"
              aria-label="Who agreed to drills"
              placeholder="Physician or physiotherapist who agreed"
              maxLength={120}
              value={ache.agreed_by}
              onChange={(event) => put(i, { agreed_by: event.target.value })}
            />
            <input
              type="date"
              className="input input-xs num w-32"
              aria-label="Agreed on"
              value={ache.agreed_on ?? ""}
              onChange={(event) => put(i, { agreed_on: event.target.value || null })}
            />
          </div>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-sm"
        onClick={() =>
          change([...aches, { part: "low_back", trouble: "pain", agreed_by: "", agreed_on: null }])
        }
      >
        <Plus size={14} aria-hidden /> Add a part
      </button>
      <p className="mt-1 text-xs opacity-80">
        Drills that load it are marked, held back or left out. This is feedback on movement, not medical
        advice.
      </p>
    </fieldset>
  );
}
