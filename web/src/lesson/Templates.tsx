import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { Trouble } from "../parts/Trouble";
import { done } from "../shell/undo";

type Template = Schemas["TemplateOut"];

/** Words of one's own to begin lessons with: put in, kept from what is written, or let go. */
export function Templates(props: {
  opening: string;
  student: string;
  club: string;
  put: (text: string) => void;
}) {
  const { opening, student, club, put } = props;
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const found = useQuery({ queryKey: ["templates"], queryFn: () => got(api.GET("/api/templates")) });
  const anew = () => queries.invalidateQueries({ queryKey: ["templates"] });
  const keep = useMutation({
    mutationFn: ({ id, ...body }: Template) =>
      got(api.PUT("/api/templates/{id}", { params: { path: { id } }, body })),
    onSuccess: anew,
  });
  const forget = useMutation({
    mutationFn: (each: Template) =>
      got(api.DELETE("/api/templates/{id}", { params: { path: { id: each.id } } })),
    onSuccess: (_, each) => {
      done(`“${each.name}” is let go.`, () => keep.mutate(each));
      return anew();
    },
  });
  const first = student.split(" ")[0] ?? "";
  const filled = (text: string) => text.replaceAll("{name}", first).replaceAll("{club}", club || "swing");
  const emptied = (text: string) => {
    const named = first ? text.replaceAll(first, "{name}") : text;
    return club ? named.replaceAll(club, "{club}") : named;
  };
  const error = keep.error ?? forget.error;
  return (
    <details className="mb-3 text-sm">
      <summary className="cursor-pointer">Openings of your own</summary>
      {error && <Trouble error={error} />}
      <ul className="mt-2 grid gap-2">
        {found.data?.map((each) => (
          <li key={each.id} className="plate flex flex-wrap items-center gap-2 p-2">
            <span className="min-w-0 flex-1">
              <strong>{each.name}</strong>
              {each.used_first && " · new lessons begin with it"}
              <span className="block truncate">{each.text}</span>
            </span>
            <button type="button" className="btn btn-xs" onClick={() => put(filled(each.text))}>
              Put in<span className="sr-only"> {each.name}</span>
            </button>
            {!each.used_first && (
              <button
                type="button"
                className="btn btn-xs"
                onClick={() => keep.mutate({ ...each, used_first: true })}
              >
                Begin with it<span className="sr-only">: {each.name}</span>
              </button>
            )}
            <button type="button" className="btn btn-ghost btn-xs" onClick={() => forget.mutate(each)}>
              Let go<span className="sr-only"> of {each.name}</span>
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate({ id: crypto.randomUUID(), name, text: emptied(opening), used_first: false });
          setName("");
        }}
      >
        <label>
          Keep the opening above as
          <input
            className="input input-sm mt-1 block"
            maxLength={60}
            required
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-sm" disabled={!opening.trim() || !name.trim()}>
          Keep
        </button>
        <span className="text-xs opacity-85">The name and the club become places that are filled in.</span>
      </form>
    </details>
  );
}
