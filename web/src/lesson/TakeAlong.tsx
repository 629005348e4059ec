import { CalendarPlus, FileArchive, FileText } from "lucide-react";

/** A lesson to take along: on paper, in one's calendar, or all of it in one file. */
export function TakeAlong({ base, film }: { base: string; film: boolean }) {
  const ways = [
    { href: `${base}/lesson.pdf`, words: "On paper (PDF)", Icon: FileText },
    { href: `${base}/practice.ics`, words: "Practice and filming into my calendar", Icon: CalendarPlus },
    {
      href: `${base}/lesson.zip`,
      words: `All of it in one file${film ? ", with the film" : ""}`,
      Icon: FileArchive,
    },
  ];
  return (
    <section className="mt-8" data-no-print>
      <h2 className="mb-1 text-lg font-bold">Take it along</h2>
      <ul>
        {ways.map(({ href, words, Icon }) => (
          <li key={href} className="border-t border-base-content/20">
            <a className="flex min-h-11 items-center gap-3" href={href} download>
              <Icon size={18} aria-hidden /> {words}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
