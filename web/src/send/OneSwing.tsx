const CHOICES = [
  { value: "one", words: "One swing, filmed by two cameras at once" },
  { value: "two", words: "Two swings, filmed one after the other" },
];

/** Asks whether two views are one swing: only then may they be measured together. */
export function OneSwing() {
  return (
    <fieldset className="mb-3" aria-describedby="one-swing-hint">
      <legend className="mb-1 text-sm font-medium">Both views show</legend>
      {CHOICES.map(({ value, words }) => (
        <label key={value} className="flex items-center gap-2 py-1 text-sm">
          <input type="radio" className="radio radio-sm" name="one_swing" value={value} required />
          {words}
        </label>
      ))}
      <p id="one-swing-hint" className="mt-1 text-xs opacity-80">
        With one phone they are two swings, even if both felt the same.
      </p>
    </fieldset>
  );
}

/** What a form says of it; null where it was not asked. */
export function oneSwingOf(form: HTMLFormElement): boolean | null {
  const said = new FormData(form).get("one_swing");
  return said === null ? null : said === "one";
}
