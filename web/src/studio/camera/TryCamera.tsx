import { useQueryClient } from "@tanstack/react-query";
import { Video } from "lucide-react";
import { useEffect, useId, useState } from "react";
import type { Schemas } from "../../api/client";
import { hourQuery } from "../../api/queries";
import { cameras, type Seen } from "../../camera/camera";
import { useCamera } from "../../camera/useCamera";
import { FileButton } from "../../parts/FileButton";
import { keep } from "../../parts/keep";
import { Trouble } from "../../parts/Trouble";
import { KindFields, kindOf } from "../../send/KindFields";
import { VIEW_WORDS, VIEWS, type View } from "../../words";
import { changedWords, type Ladder } from "../ladderWords";
import { gatesOf } from "./gates";
import { TryReplay } from "./TryReplay";
import { TrySender } from "./trySender";
import { useTries } from "./useTries";
import { Waiting } from "./Waiting";

const ANY: Seen = { device: "" };
const KIND = "tropometer.studio.kind";
const VIEW = "tropometer.studio.view";

/** A camera that stands in the studio: every swing comes back at once, and becomes a try of the hour by itself. */
export function TryCamera({ ladder, user }: { ladder: Ladder; user: string }) {
  const heading = useId();
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState<Seen>(ANY);
  const [there, setThere] = useState<MediaDeviceInfo[]>([]);
  const [view, setView] = useState<View>(() => viewOf(localStorage.getItem(VIEW)));
  const [changed, setChanged] = useState("");
  const camera = useCamera(open, seen);
  const live = camera.shape !== null;
  const sender = useSender(user, () =>
    queries.invalidateQueries({ queryKey: hourQuery(ladder.id).queryKey }),
  );
  const tries = useTries(camera.video, live, ({ at, clip, inClip, by }) => {
    const name = `${nameOf(at)}${clip.name.match(/\.\w+$/)?.[0] ?? ""}`;
    const about = {
      ...keptKind(),
      view,
      changed: changed.trim(),
      struck_s: Math.max(0, inClip),
      struck_by: by,
    };
    void sender?.add(
      { id: crypto.randomUUID(), hour: ladder.id, student: ladder.student_id, at, name, about },
      clip,
    );
  });
  useEffect(() => {
    if (live) void cameras().then(setThere);
  }, [live]);
  const error = camera.error ?? tries.error;
  const { width, height, frameRate } = camera.gives ?? {};
  return (
    <section aria-labelledby={heading} className="plate mb-4 p-3">
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <h2 id={heading} className="flex items-center gap-2 text-lg font-semibold">
          <Video size={16} aria-hidden /> Camera
        </h2>
        {!open && (
          <p className="flex-1">
            A camera on this machine: every swing comes back at once, and becomes a try.
          </p>
        )}
        {live && width && height && (
          <p className="num flex-1" data-testid="gives">
            {width} × {height}, {Math.round(frameRate ?? 0)} pictures a second
          </p>
        )}
        {!open && (
          <FileButton
            accept="video/*"
            pending={false}
            size="btn-sm"
            choose={(clip) => {
              setSeen({ clip });
              setOpen(true);
            }}
          >
            Play a clip as a camera
          </FileButton>
        )}
        <button
          type="button"
          className={`btn btn-sm ${open ? "btn-ghost ml-auto" : ""}`}
          onClick={() => {
            if (!open) setSeen(ANY);
            setOpen(!open);
            tries.drop();
          }}
        >
          {open ? "Close the camera" : "Open the camera"}
        </button>
      </div>
      {error && <Trouble error={error} />}
      {open && (
        <div className="mt-2 grid gap-3 md:grid-cols-2">
          <div>
            <video
              ref={camera.video}
              className="max-h-96 w-full rounded bg-dusk object-contain"
              style={{ aspectRatio: camera.shape ?? 16 / 9 }}
              aria-label="The camera, live"
              muted
              playsInline
            />
            {live && (
              <p className="mt-2 flex flex-wrap items-center gap-2 text-sm" role="status">
                Watching. A swing is found by how it moves; or press any key, or
                <button type="button" className="btn btn-sm" onClick={tries.now}>
                  Struck now
                </button>
              </p>
            )}
          </div>
          <div>
            {tries.shown ? (
              <TryReplay
                key={tries.shown.at}
                clip={tries.shown.clip}
                gates={gatesOf(ladder.tries, view, nameOf(tries.shown.at))}
              />
            ) : (
              <form
                className="text-sm"
                onChange={(event) => keep(localStorage, KIND, JSON.stringify(kindOf(event.currentTarget)))}
              >
                {there.length > 1 && (
                  <label className="mb-2 block">
                    Which camera
                    <select
                      className="select w-full"
                      value={"device" in seen ? seen.device : ""}
                      onChange={(event) => setSeen({ device: event.target.value })}
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
                <label className="mb-2 block">
                  It stands
                  <select
                    className="select w-full"
                    value={view}
                    onChange={(event) => {
                      const chosen = viewOf(event.target.value);
                      keep(localStorage, VIEW, chosen);
                      setView(chosen);
                    }}
                  >
                    {VIEWS.map((each) => (
                      <option key={each} value={each}>
                        {VIEW_WORDS[each]}
                      </option>
                    ))}
                  </select>
                </label>
                <KindFields kind={keptKind()} />
              </form>
            )}
            {tries.shown && (
              <button type="button" className="btn btn-sm mt-2" onClick={tries.drop}>
                Camera, club and swing length
              </button>
            )}
          </div>
        </div>
      )}
      {live && (
        <label className="mt-2 block max-w-xl text-sm">
          What is changed at the tries that come now
          <input
            className="input input-sm w-full"
            maxLength={80}
            placeholder={changedWords("")}
            value={changed}
            onChange={(event) => setChanged(event.target.value)}
          />
        </label>
      )}
      {sender && <Waiting sender={sender} hour={ladder.id} />}
    </section>
  );
}

const nameOf = (at: number) => `try-${at}`;

/** Sends what this browser holds, whether a camera is open or not. */
function useSender(user: string, arrived: () => void): TrySender | null {
  const [sender, setSender] = useState<TrySender | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is done once one has arrived is the same
  useEffect(() => {
    const made = new TrySender(user, arrived);
    setSender(made);
    return () => made.end();
  }, [user]);
  return sender;
}

const viewOf = (said: string | null): View => VIEWS.find((each) => each === said) ?? "face_on";

/** What was last said of club and length on this machine. */
function keptKind(): Schemas["SwingKind"] {
  try {
    return { club: "", swing_length: "full", ...JSON.parse(localStorage.getItem(KIND) ?? "{}") };
  } catch {
    return { club: "", swing_length: "full" };
  }
}
