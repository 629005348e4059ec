import type { Camera } from "../../camera/camera";
import { VIEW_WORDS, VIEWS, type View } from "../../words";

/** Which camera it is, where there is a choice, and from which side it sees the player. */
export function CameraChoice(props: {
  name: string; // "" for the only one
  camera: Camera;
  there: MediaDeviceInfo[];
  view: View;
  choose?: (device: string) => void;
  look: (view: View) => void;
}) {
  const { name, camera, there, view, choose, look } = props;
  return (
    <div className="mb-2 grid gap-2 sm:grid-cols-2">
      {choose && there.length > 1 && "device" in camera && (
        <label className="block">
          {name ? `${name} is` : "Which camera"}
          <select
            className="select w-full"
            value={camera.device}
            onChange={(event) => choose(event.target.value)}
          >
            <option value="">Any</option>
            {there.map((each, place) => (
              <option key={each.deviceId} value={each.deviceId}>
                {each.label || `Camera ${place + 1}`}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className="block">
        {name ? `${name} stands` : "It stands"}
        <select className="select w-full" value={view} onChange={(event) => look(event.target.value as View)}>
          {VIEWS.map((each) => (
            <option key={each} value={each}>
              {VIEW_WORDS[each]}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
