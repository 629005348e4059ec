import { useQuery } from "@tanstack/react-query";
import { meQuery, modelsQuery, type Student } from "../api/queries";
import { tallness } from "../lengths";
import { day } from "../parts/when";
import { type Body, CLUB_WORDS, MISS_WORDS } from "../students/bodyWords";

const MOTION_WORDS: Record<string, string> = {
  lead_hip_in: "Lead hip, turned in",
  lead_hip_out: "Lead hip, turned out",
  trail_hip_in: "Trail hip, turned in",
  trail_hip_out: "Trail hip, turned out",
  lead_ankle: "Lead ankle",
  trail_ankle: "Trail ankle",
  trunk_turn: "Trunk, turned",
};

/** Who a student is: hand, model, body, ball and how far joints move. */
export function Who({ student, body }: { student: Student; body: Partial<Body> | undefined }) {
  const units = useQuery(meQuery).data?.units ?? "cm";
  const models = useQuery(modelsQuery);
  const model = models.data?.find(({ id }) => id === student.teaching_model);
  const rows: [string, string][] = [
    ["Plays", `${student.hand}-handed`],
    ["Is taught", model?.name ?? student.teaching_model],
  ];
  if (student.stature_m !== null) rows.push(["Tall", tallness(student.stature_m, units)]);
  if (student.email) rows.push(["Mail", student.email]);
  if (student.minor)
    rows.push([
      "Under age",
      student.consent_on ? `${student.guardian}, ${day(student.consent_on)}` : "nobody has consented",
    ]);
  if (body?.misses?.length) rows.push(["Usual miss", body.misses.map((each) => MISS_WORDS[each]).join(", ")]);
  const clubs = (which: "good_clubs" | "bad_clubs") =>
    (body?.[which] ?? []).map((club) => CLUB_WORDS[club]).join(", ");
  if (clubs("good_clubs")) rows.push(["Goes well", clubs("good_clubs")]);
  if (clubs("bad_clubs")) rows.push(["Goes badly", clubs("bad_clubs")]);
  for (const { motion, degrees, measured_on } of body?.motions ?? [])
    rows.push([MOTION_WORDS[motion] ?? motion, `${Math.round(degrees)}°, ${day(measured_on)}`]);
  return (
    <section className="plate p-3 text-sm" aria-label="Who">
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {rows.map(([what, said]) => (
          <div key={what} className="contents">
            <dt className="opacity-85">{what}</dt>
            <dd className="min-w-0 break-words text-right font-medium">{said}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
