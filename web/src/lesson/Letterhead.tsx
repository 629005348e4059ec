import type { Schemas } from "../api/client";

/** The colours an instructor may choose from; none of them says whose a swing is. */
export const HEADINGS: Record<Schemas["LookOut"]["heading"], { name: string; ground: string }> = {
  pine: { name: "Pine", ground: "bg-pine" },
  sea: { name: "Sea", ground: "bg-sea" },
  heath: { name: "Heath", ground: "bg-heath" },
  earth: { name: "Earth", ground: "bg-earth" },
};

/** Who it comes from, over all that students read: picture, name and practice on a colour of the instructor's own. */
export function Letterhead({ look, instructor }: { look: Schemas["LookOut"]; instructor: string }) {
  return (
    <div
      data-letterhead={look.heading}
      className={`-mx-4 -mt-5 mb-4 flex items-center gap-3 px-4 py-2.5 text-paper ${HEADINGS[look.heading].ground}`}
    >
      {look.portrait && (
        <img
          src={look.portrait}
          alt={instructor}
          width={48}
          height={48}
          className="h-12 w-12 shrink-0 rounded-full border border-paper/60 object-cover"
        />
      )}
      <p className="min-w-0 leading-tight">
        <strong className="block truncate">{instructor}</strong>
        {look.practice && <span className="block truncate text-sm">{look.practice}</span>}
      </p>
    </div>
  );
}
