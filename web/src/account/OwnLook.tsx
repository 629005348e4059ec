import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, got, type Schemas } from "../api/client";
import { meQuery } from "../api/queries";
import { HEADINGS, Letterhead } from "../lesson/Letterhead";
import { Field } from "../parts/Field";
import { FileButton } from "../parts/FileButton";
import { Trouble } from "../parts/Trouble";

type Me = Schemas["Me"];

/** How the heading of what students read looks: a practice's name, a picture, a colour. */
export function OwnLook() {
  const queries = useQueryClient();
  const me = useQuery(meQuery).data;
  const keep = (changed: Me) => queries.setQueryData(meQuery.queryKey, changed);
  const change = useMutation({
    mutationFn: (body: Schemas["MeChange"]) => got(api.PATCH("/api/me", { body })),
    onSuccess: keep,
  });
  const show = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return got(api.POST("/api/me/portrait", { body: { file: "" }, bodySerializer: () => form }));
    },
    onSuccess: keep,
  });
  const drop = useMutation({
    mutationFn: () => got(api.DELETE("/api/me/portrait")),
    onSuccess: () => queries.invalidateQueries({ queryKey: meQuery.queryKey }),
  });
  if (!me) return null;
  const { look } = me;
  const trouble = change.error ?? show.error ?? drop.error;
  const named = (words: string) => {
    if (words.trim() !== look.practice) change.mutate({ practice: words.trim() });
  };
  return (
    <section className="plate p-4" aria-label="What students see of you">
      <h2 className="mb-3 text-lg font-semibold">What students see of you</h2>
      <div className="mb-3 overflow-hidden rounded px-4 pt-5">
        <Letterhead look={look} instructor={me.name} />
      </div>
      {trouble && <Trouble error={trouble} />}
      <Field label="Name of your practice" hint="Beneath your own name, over each lesson and page.">
        <input
          className="input w-full"
          maxLength={80}
          defaultValue={look.practice}
          onBlur={(event) => named(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && named(event.currentTarget.value)}
        />
      </Field>
      <fieldset className="mb-3">
        <legend className="mb-1 text-sm font-medium">Colour of the heading</legend>
        <div className="flex flex-wrap gap-2">
          {Object.entries(HEADINGS).map(([id, { name, ground }]) => (
            <label
              key={id}
              className={`flex items-center gap-2 rounded px-3 py-2 text-sm text-paper ${ground}`}
            >
              <input
                type="radio"
                name="heading"
                className="radio radio-sm border-paper text-paper"
                checked={look.heading === id}
                onChange={() => change.mutate({ heading: id as keyof typeof HEADINGS })}
              />
              {name}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="flex flex-wrap items-center gap-2">
        <FileButton
          size="btn-sm"
          accept="image/jpeg,image/png,image/webp"
          pending={show.isPending}
          choose={show.mutate}
        >
          {look.portrait ? "Another picture" : "A picture of you"}
        </FileButton>
        {look.portrait && (
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => drop.mutate()}>
            Show none
          </button>
        )}
      </div>
      <p className="mt-1 text-xs opacity-85">
        JPEG, PNG or WebP, 15 MB at most. Lessons that were sent before show what you choose here, too.
      </p>
    </section>
  );
}
