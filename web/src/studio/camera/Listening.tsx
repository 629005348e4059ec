import { useEffect, useState } from "react";
import { microphones } from "../../voice/microphone";

/** Whether strikes are listened for, with which microphone, and why nothing is heard. */
export function Listening(props: {
  wanted: boolean;
  listen: (wanted: boolean) => void;
  heard: boolean;
  trouble: string | null;
  device: string;
  choose: (device: string) => void;
}) {
  const { wanted, listen, heard, trouble, device, choose } = props;
  const [there, setThere] = useState<{ id: string; label: string }[]>([]);
  useEffect(() => {
    if (heard) void microphones().then(setThere);
  }, [heard]);
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm"
          checked={wanted}
          onChange={(event) => listen(event.target.checked)}
        />
        Listen for the strike
      </label>
      {wanted && there.length > 1 && (
        <select
          className="select select-sm w-auto max-w-60"
          aria-label="Microphone"
          value={device}
          onChange={(event) => choose(event.target.value)}
        >
          <option value="">Any microphone</option>
          {there.map((each) => (
            <option key={each.id} value={each.id}>
              {each.label}
            </option>
          ))}
        </select>
      )}
      {wanted && trouble && (
        <p role="status">Nothing is heard: {trouble} Swings are found by how they move.</p>
      )}
    </div>
  );
}
