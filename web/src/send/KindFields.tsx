import { useId } from "react";
import type { Schemas } from "../api/client";
import { Field } from "../parts/Field";
import { CLUB_CLASS_WORDS, type ClubClass, SWING_LENGTH_WORDS, type SwingLength } from "../words";

export type Kind = Schemas["SwingKind"];

const CLUBS: [string, ClubClass][] = [
  ["Driver", "driver"],
  ...["3 wood", "5 wood", "7 wood", "Hybrid"].map((club): [string, ClubClass] => [club, "wood"]),
  ...[3, 4, 5, 6, 7, 8, 9].map((number): [string, ClubClass] => [`${number} iron`, "iron"]),
  ...["Pitching", "Gap", "Sand", "Lob"].map((kind): [string, ClubClass] => [`${kind} wedge`, "wedge"]),
];

/** What a swing was made with, and how far it was meant to go back; a club that is known says its own kind. */
export function KindFields(props: { kind?: Partial<Kind>; own?: boolean }) {
  const { kind = { swing_length: "full" }, own = false } = props;
  const clubs = useId();
  return (
    <>
      <Field label="Club">
        <input
          className="input w-full"
          name="club"
          maxLength={60}
          placeholder="7 iron"
          list={clubs}
          defaultValue={kind.club}
          onInput={({ currentTarget: { value, form } }) => {
            const known = CLUBS.find(([club]) => club.toLowerCase() === value.trim().toLowerCase());
            const field = form?.elements.namedItem("club_class");
            if (known && field instanceof HTMLSelectElement) field.value = known[1];
          }}
        />
      </Field>
      <datalist id={clubs}>
        {CLUBS.map(([club]) => (
          <option key={club} value={club} />
        ))}
      </datalist>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Kind of club">
          <select className="select w-full" name="club_class" defaultValue={kind.club_class ?? ""}>
            <option value="">Not said</option>
            {Object.entries(CLUB_CLASS_WORDS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Swing length">
          <select className="select w-full" name="swing_length" defaultValue={kind.swing_length ?? ""}>
            <option value="">Not said</option>
            {Object.entries(SWING_LENGTH_WORDS).map(([value, words]) => (
              <option key={value} value={value}>
                {own ? words.replace("Lead arm", "Front arm") : words}
              </option>
            ))}
          </select>
        </Field>
      </div>
    </>
  );
}

/** What a form that holds KindFields says. */
export function kindOf(form: HTMLFormElement): Kind {
  const data = new FormData(form);
  const said = (name: string) => String(data.get(name) ?? "").trim();
  return {
    club: said("club"),
    club_class: (said("club_class") || null) as ClubClass | null,
    swing_length: (said("swing_length") || null) as SwingLength | null,
  };
}
