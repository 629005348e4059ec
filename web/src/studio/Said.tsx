/** A field of a few words that is kept when it is left, or with Enter; on paper the words alone. */
export function Said(props: {
  label: string;
  value: string;
  longest: number;
  placeholder?: string;
  list?: string;
  keep: (words: string) => void;
}) {
  const { label, value, longest, placeholder, list, keep } = props;
  const done = (words: string) => {
    if (words.trim() !== value) keep(words.trim());
  };
  return (
    <>
      <span className="hidden print:inline" aria-hidden>
        {value || placeholder}
      </span>
      <input
        key={value}
        className="input input-sm w-full min-w-28"
        aria-label={label}
        maxLength={longest}
        placeholder={placeholder}
        list={list}
        defaultValue={value}
        onBlur={(event) => done(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && done(event.currentTarget.value)}
      />
    </>
  );
}
