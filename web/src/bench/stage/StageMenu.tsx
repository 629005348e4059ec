import { GAUGE_WORDS } from "../../words";
import { useBench } from "../benchContext";
import { onOf } from "../benchState";
import { commandOf } from "../commands/table";
import { Menu } from "../Menu";

/** What is seen on the stages: which gauges stay while stepping, and whether both are zoomed alike. */
export function StageMenu() {
  const pinned = useBench((bench) => bench.pinned);
  const alike = useBench((bench) => bench.alike);
  const state = useBench((bench) => bench.sides[bench.active]);
  const set = useBench((bench) => bench.set);
  const here = new Set(state && onOf(state).gauges.map((gauge) => gauge.id));
  const turn = (id: string) =>
    set({ pinned: pinned.includes(id) ? pinned.filter((each) => each !== id) : [...pinned, id] });
  return (
    <Menu command="gauges" words="Gauges">
      <fieldset className="w-64 text-sm">
        <legend className="pb-1 font-semibold">Stay on the stages</legend>
        {Object.entries(GAUGE_WORDS).map(([id, words]) => (
          <label key={id} className={`flex items-center gap-2 py-0.5 ${here.has(id) ? "" : "opacity-75"}`}>
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={pinned.includes(id)}
              onChange={() => turn(id)}
            />
            {words}
          </label>
        ))}
      </fieldset>
      <label className="mt-1 flex items-center gap-2 border-t border-base-content/20 pt-1.5 text-sm">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={alike}
          onChange={() => set({ alike: !alike })}
        />
        Zoom both stages alike{" "}
        <kbd className="num ml-auto text-xs opacity-75">{commandOf("alike").shown}</kbd>
      </label>
    </Menu>
  );
}
