import { useQueryClient } from "@tanstack/react-query";
import { Video } from "lucide-react";
import { useEffect, useId, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { hourQuery } from "../../api/queries";
import { type Camera, cameras } from "../../camera/camera";
import { useSound } from "../../camera/sound/useSound";
import { keep } from "../../parts/keep";
import { Trouble } from "../../parts/Trouble";
import { KindFields, kindOf } from "../../send/KindFields";
import { otherSide } from "../../sides";
import { VIEWS, type View } from "../../words";
import { changedWords, type Ladder } from "../ladderWords";
import { CameraChoice } from "./CameraChoice";
import { CameraPane } from "./CameraPane";
import { clipName, nameOf } from "./clipName";
import { gatesOf } from "./gates";
import { Listening } from "./Listening";
import { PhoneCode } from "./PhoneCode";
import { TryReplay } from "./TryReplay";
import { useSender } from "./useSender";
import { useTries } from "./useTries";
import { Waiting } from "./Waiting";
import { ownWay } from "./ways";

const ANY: Camera = { device: "" };
const KIND = "tropometer.studio.kind";
const VIEW = "tropometer.studio.view";
const LISTEN = "tropometer.studio.listen";
const NAMES = ["The first camera", "The second camera"];

interface Standing {
  camera: Camera;
  view: View;
}

/** One or two cameras that stand in the studio: every swing comes back at once, and becomes a try by itself. */
export function TryCamera({ ladder, user }: { ladder: Ladder; user: string }) {
  const heading = useId();
  const queries = useQueryClient();
  const [standing, setStanding] = useState<Standing[]>([]);
  const [videos, setVideos] = useState<(HTMLVideoElement | null)[]>([]);
  const [there, setThere] = useState<MediaDeviceInfo[]>([]);
  const [changed, setChanged] = useState("");
  const [listening, setListening] = useState(() => localStorage.getItem(LISTEN) !== "no");
  const [microphone, setMicrophone] = useState("");
  const open = standing.length > 0;
  const stood = useRef(standing); // a try is whole a little after its camera was closed
  if (open) stood.current = standing;
  const live = open && standing.some((_, place) => videos[place]); // one may have been taken away
  const { sound, trouble } = useSound(listening && live, microphone);
  const way = useMemo(() => ownWay(user), [user]);
  const sender = useSender(way, () => queries.invalidateQueries({ queryKey: hourQuery(ladder.id).queryKey }));
  const tries = useTries(live ? videos : [], sound, ({ at, clip, inClip, by, camera }) => {
    const view = stood.current[camera]?.view ?? "face_on";
    const name = clipName(at, clip);
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
  const begin = () => setStanding([{ camera: ANY, view: viewOf(localStorage.getItem(VIEW)) }]);
  const add = (camera: Camera) =>
    setStanding(([one]) => (one ? [one, { camera, view: otherSide(one.view) }] : []));
  const say = (place: number, said: Partial<Standing>) => {
    if (place === 0 && said.view) keep(localStorage, VIEW, said.view);
    setStanding((all) => all.map((each, i) => (i === place ? { ...each, ...said } : each)));
  };
  const close = () => {
    setStanding([]);
    tries.drop();
  };
  const settings = (
    <form
      className="text-sm"
      onChange={(event) => keep(localStorage, KIND, JSON.stringify(kindOf(event.currentTarget)))}
    >
      {standing.map(({ camera, view }, place) => (
        <CameraChoice
          // biome-ignore lint/suspicious/noArrayIndexKey: a camera is its place
          key={place}
          name={standing.length > 1 ? (NAMES[place] ?? "") : ""}
          camera={camera}
          there={there}
          view={view}
          choose={(device) => say(place, { camera: { device } })}
          look={(chosen) => say(place, { view: chosen })}
        />
      ))}
      <KindFields kind={keptKind()} />
    </form>
  );
  return (
    <section aria-labelledby={heading} className="plate mb-4 p-3 print:hidden">
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <h2 id={heading} className="flex items-center gap-2 text-lg font-semibold">
          <Video size={16} aria-hidden /> Camera
        </h2>
        <p className="flex-[1_1_18rem]">
          {open ? "" : "A camera on this machine: every swing comes back at once, and becomes a try."}
        </p>
        {live && standing.length === 1 && there.length > 1 && (
          <button type="button" className="btn btn-sm" onClick={() => add(otherThan(videos[0], there))}>
            Open a second camera
          </button>
        )}
        {standing.length > 1 && (
          <button
            type="button"
            className="btn btn-ghost btn-sm"
            onClick={() => setStanding(standing.slice(0, 1))}
          >
            Close the second camera
          </button>
        )}
        <button
          type="button"
          className={`btn btn-sm ${open ? "btn-ghost" : ""}`}
          onClick={open ? close : begin}
        >
          {open ? (standing.length > 1 ? "Close both" : "Close the camera") : "Open the camera"}
        </button>
      </div>
      {tries.error && <Trouble error={tries.error} />}
      {open && (
        <div className="mt-2 grid gap-3 md:grid-cols-2">
          {standing.map(({ camera }, place) => (
            <CameraPane
              // biome-ignore lint/suspicious/noArrayIndexKey: a camera is its place
              key={place}
              camera={camera}
              label={place === 0 ? "The camera, live" : "The second camera, live"}
              live={(video) => setVideos((all) => put(all, place, video))}
            />
          ))}
          {tries.shown?.seen.map(({ clip, camera }) => (
            <TryReplay
              key={`${tries.shown?.at} ${camera}`}
              clip={clip}
              label={
                camera === 0
                  ? "The last try, a quarter as fast"
                  : "The last try from the other side, a quarter as fast"
              }
              gates={gatesOf(ladder.tries, standing[camera]?.view ?? "face_on", nameOf(tries.shown?.at ?? 0))}
            />
          ))}
          {!tries.shown && settings}
        </div>
      )}
      {live && (
        <>
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 text-sm">
            <p className="flex flex-wrap items-center gap-2" role="status">
              {tries.watching && (
                <>
                  Watching. A swing is found by {sound ? "its sound and" : ""} how it moves; or press any key,
                  or
                  <button type="button" className="btn btn-sm" onClick={tries.now}>
                    Struck now
                  </button>
                </>
              )}
            </p>
            <Listening
              wanted={listening}
              listen={(wanted) => {
                keep(localStorage, LISTEN, wanted ? "yes" : "no");
                setListening(wanted);
              }}
              heard={sound !== null}
              trouble={trouble}
              device={microphone}
              choose={setMicrophone}
            />
            {tries.shown && (
              <button type="button" className="btn btn-sm" onClick={tries.drop}>
                Camera, club and swing length
              </button>
            )}
          </div>
          {standing.length > 1 && (
            <p className="mt-1 text-sm">
              Both pictures are of one moment to within a picture or two, and whatever one camera lags behind
              the other. Readings from both sides do not rely on that: they go by the pegs set in each.
            </p>
          )}
          {tries.missed && <p className="mt-1 text-sm">{tries.missed}</p>}
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
        </>
      )}
      <PhoneCode hour={ladder.id} />
      {sender && <Waiting sender={sender} hour={ladder.id} />}
    </section>
  );
}

function put<T>(all: (T | null)[], place: number, one: T | null): (T | null)[] {
  const anew = [...all];
  anew[place] = one;
  return anew;
}

/** A camera that is not the one whose picture is shown. */
function otherThan(shown: HTMLVideoElement | null | undefined, there: MediaDeviceInfo[]): Camera {
  const stream = shown?.srcObject instanceof MediaStream ? shown.srcObject : null;
  const own = stream?.getVideoTracks()[0]?.getSettings().deviceId;
  return { device: there.find(({ deviceId }) => deviceId !== own)?.deviceId ?? "" };
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
