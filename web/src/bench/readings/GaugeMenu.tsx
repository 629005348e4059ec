import { Ruler } from "lucide-react";
import { GAUGE_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { Menu } from "../Menu";

/** Which gauges stay on the stages while stepping. */
export function GaugeMenu() {
  const pinned = useBench((bench) => bench.pinned);
  const on = useBench((bench) => bench.sides[bench.active]?.on);
  const set = useBench((bench) => bench.set);
  const here = new Set(on?.gauges.map((gauge) => gauge.id));
  const turn = (id: string) =>
    set({ pinned: pinned.includes(id) ? pinned.filter((each) => each !== id) : [...pinned, id] });
  return (
    <Menu
      label="Gauges"
      title="Which lines of the trade stay on the stages (;)"
      opensOn=";"
      icon={<Ruler size={16} aria-hidden />}
    >
      <ul className="grid w-60 gap-0.5 text-sm">
        {Object.entries(GAUGE_WORDS).map(([id, words]) => (
          <li key={id}>
            <label className={`flex items-center gap-2 ${here.has(id) ? "" : "opacity-60"}`}>
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={pinned.includes(id)}
                onChange={() => turn(id)}
              />
              {words}
            </label>
          </li>
        ))}
      </ul>
    </Menu>
  );
}
