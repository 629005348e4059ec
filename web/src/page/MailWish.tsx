import type { Schemas } from "../api/client";

export type Wish = Schemas["MailWishIn"]["mail_wish"];

const WORDS: Record<Wish, string> = {
  each: "Each time",
  daily: "At most once a day",
  off: "Never",
};

/** How often news come by mail. */
export function MailWish(props: { wish: Wish; change: (wish: Wish) => void; hint: string }) {
  return (
    <fieldset>
      <legend className="font-semibold">News by mail</legend>
      {(Object.keys(WORDS) as Wish[]).map((each) => (
        <label key={each} className="flex min-h-9 items-center gap-2">
          <input
            type="radio"
            name="mail_wish"
            className="radio radio-sm"
            checked={props.wish === each}
            onChange={() => props.change(each)}
          />
          {WORDS[each]}
        </label>
      ))}
      <p className="text-xs opacity-85">{props.hint}</p>
    </fieldset>
  );
}
