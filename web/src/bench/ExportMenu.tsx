import { Download } from "lucide-react";
import { Menu } from "./Menu";

const FILES = [
  ["record", "json", "The swing record: marks, pegs and cameras"],
  ["readings.csv", "csv", "All readings, for a spreadsheet"],
  ["curves.csv", "csv", "Readings over time, for a spreadsheet"],
] as const;

/** What can be taken away from a swing. */
export function ExportMenu({ swingId }: { swingId: string }) {
  return (
    <Menu label="Export" title="Export the swing" below icon={<Download size={16} aria-hidden />}>
      <ul className="grid w-72 gap-0.5 text-sm">
        {FILES.map(([path, ending, words]) => (
          <li key={path}>
            <a
              className="link block px-1 py-0.5"
              href={`/api/swings/${swingId}/${path}`}
              download={`${path.replace(".csv", "")}-${swingId.slice(0, 8)}.${ending}`}
            >
              {words}
            </a>
          </li>
        ))}
      </ul>
    </Menu>
  );
}
