import { useStore } from "zustand";
import type { Device, HourLine } from "./line";

const KINDS: Record<string, string> = { plate: "pressure plate", launch_monitor: "launch monitor" };

/** Which devices are on the line, what came of what they sent, and how well their clock is known. */
export function Devices({ line }: { line: HourLine }) {
  const connected = useStore(line.store, (now) => now.connected);
  const devices = useStore(line.store, (now) => now.devices);
  return (
    <div className="mt-2 text-sm" role="status">
      {!connected && <p>No connection to the line: trying again. What devices send is kept meanwhile.</p>}
      {connected && devices.length === 0 && <p>The line is open. No device is on it yet.</p>}
      <ul>
        {devices.map((each) => (
          <li key={each.id} className={each.there ? "" : "opacity-75"}>
            <span className="font-medium">{each.name || KINDS[each.device]}</span>
            {each.name && `, ${KINDS[each.device] ?? each.device}`}: <span className="num">{told(each)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function told({ there, counts, clock_u95_s, device }: Device): string {
  const parts = [there ? "on the line" : "gone"];
  if (device === "plate") parts.push(`${counts.taken} frames`);
  for (const what of ["lost", "late", "doubled"] as const)
    if (counts[what]) parts.push(`${counts[what]} ${what}`);
  if (counts.nonsense) parts.push(`${counts.nonsense} made no sense and were dropped`);
  if (counts.jumps) parts.push(`its clock jumped ${counts.jumps === 1 ? "once" : `${counts.jumps} times`}`);
  parts.push(clock_u95_s === null ? "clock not known yet" : `clock ± ${Math.ceil(clock_u95_s * 1000)} ms`);
  return parts.join(", ");
}
