import { Sheet } from "../../parts/Sheet";
import { STATION_WORDS, type Station } from "../stations/stations";
import { COMMAND_IDS, commandOf, HEADINGS } from "./table";

/** All keys of the bench, by what they are for; those of other stations say where they work. */
export function KeysHelp({ station, close }: { station: Station; close: () => void }) {
  return (
    <Sheet title="Keys on the bench" close={close}>
      {Object.entries(HEADINGS).map(([heading, title]) => (
        <section key={heading} className="mb-4">
          <h3 className="tape-edge mb-1 h-auto! pb-2 font-semibold">{title}</h3>
          <dl className="grid grid-cols-[7.5rem_1fr] gap-x-3 gap-y-1 text-sm">
            {COMMAND_IDS.map((id) => ({ id, ...commandOf(id) }))
              .filter((each) => each.heading === heading && each.shown)
              .map(({ id, shown, words, at }) => (
                <div key={id} className="contents">
                  <dt className="num font-semibold">{shown}</dt>
                  <dd>
                    {words}
                    {at && !at.includes(station) && (
                      <span className="opacity-75">
                        {" "}
                        (at {at.map((each) => STATION_WORDS[each]).join(", ")})
                      </span>
                    )}
                  </dd>
                </div>
              ))}
          </dl>
        </section>
      ))}
      <section className="text-sm">
        <h3 className="tape-edge mb-1 h-auto! pb-2 font-semibold">With a mark chosen</h3>
        <p>The arrows nudge it a tenth of a screen pixel, with Shift a whole one.</p>
      </section>
    </Sheet>
  );
}
