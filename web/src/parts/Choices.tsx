interface Props<Id extends string> {
  legend: string;
  name: string;
  ids: readonly Id[];
  words: (id: Id) => string;
  chosen?: readonly string[];
  hint?: string;
  long?: boolean; // so many that they scroll
}

/** Several of some words, each a plate to press; the form holds their ids under one name. */
export function Choices<Id extends string>({ legend, name, ids, words, chosen = [], hint, long }: Props<Id>) {
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 text-sm font-medium">{legend}</legend>
      <div className={`flex flex-wrap gap-1 ${long ? "max-h-52 overflow-y-auto" : ""}`}>
        {ids.map((id) => (
          <label
            key={id}
            className="flex min-h-8 cursor-pointer items-center gap-1.5 rounded-sm border border-base-content/40 px-2 text-sm has-checked:border-brass has-checked:bg-base-200 has-checked:font-medium has-focus-visible:outline-2"
          >
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              name={name}
              value={id}
              defaultChecked={chosen.includes(id)}
            />
            {words(id)}
          </label>
        ))}
      </div>
      {hint && <p className="mt-1 text-xs opacity-80">{hint}</p>}
    </fieldset>
  );
}
