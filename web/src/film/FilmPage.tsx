import { useQuery } from "@tanstack/react-query";
import { Video } from "lucide-react";
import { useMemo, useState } from "react";
import { api, got } from "../api/client";
import type { Camera, Facing } from "../camera/camera";
import { useSound } from "../camera/sound/useSound";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import { otherSide } from "../sides";
import { CameraChoice } from "../studio/camera/CameraChoice";
import { CameraPane } from "../studio/camera/CameraPane";
import { clipName } from "../studio/camera/clipName";
import { Listening } from "../studio/camera/Listening";
import { TryReplay } from "../studio/camera/TryReplay";
import { useSender } from "../studio/camera/useSender";
import { useTries } from "../studio/camera/useTries";
import { Waiting } from "../studio/camera/Waiting";
import { phoneWay } from "../studio/camera/ways";
import type { View } from "../words";

const CAMERAS: Record<Facing, Camera> = {
  user: { facing: "user" },
  environment: { facing: "environment" },
};

/** A phone that films for a studio hour: what it sees goes there by itself, and nothing of the hour is shown. */
export function FilmPage({ token }: { token: string }) {
  usePageTitle("Film a studio hour");
  const asked = useQuery({
    queryKey: ["film", token],
    queryFn: () => got(api.GET("/api/film/{token}", { params: { path: { token } } })),
    retry: false,
  });
  const [facing, setFacing] = useState<Facing>("environment");
  const [open, setOpen] = useState(false);
  const [video, setVideo] = useState<HTMLVideoElement | null>(null);
  const [said, setSaid] = useState<View | null>(null);
  const [listening, setListening] = useState(true);
  const [microphone, setMicrophone] = useState("");
  const [sent, setSent] = useState(0);
  const view = said ?? otherSide(asked.data?.views[0] ?? "face_on");
  const { sound, trouble } = useSound(listening && video !== null, microphone);
  const way = useMemo(() => phoneWay(token), [token]);
  const sender = useSender(way, () => setSent((count) => count + 1));
  const tries = useTries(video ? [video] : [], sound, ({ at, clip, inClip, by }) => {
    const about = { club: "", view, changed: "", struck_s: Math.max(0, inClip), struck_by: by };
    const name = clipName(at, clip);
    void sender?.add({ id: crypto.randomUUID(), hour: token, student: "", at, name, about }, clip);
  });
  // Asked again without a connection it fails: who films goes on.
  if (asked.error && !asked.data)
    return (
      <main className="mx-auto max-w-xl p-4">
        <Trouble error={asked.error} retry={asked.refetch} />
      </main>
    );
  if (!asked.data) return null;
  return (
    <main className="mx-auto max-w-xl p-4">
      <h1 className="text-2xl font-semibold">Film a studio hour</h1>
      <p className="mt-1 mb-3">
        For {asked.data.instructor}. Every swing that this phone sees goes to the hour by itself.
      </p>
      {tries.error && <Trouble error={tries.error} />}
      {open && <CameraPane key={facing} camera={CAMERAS[facing]} label="The camera, live" live={setVideo} />}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        {!open && (
          <button type="button" className="btn btn-primary" onClick={() => setOpen(true)}>
            <Video size={16} aria-hidden /> Open the camera
          </button>
        )}
        {open && (
          <>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => setFacing(facing === "user" ? "environment" : "user")}
            >
              Other camera
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setOpen(false)}>
              Close the camera
            </button>
          </>
        )}
      </div>
      <div className="mt-3 text-sm">
        <CameraChoice name="" camera={CAMERAS[facing]} there={[]} view={view} look={setSaid} />
      </div>
      {video && (
        <div className="mt-3 space-y-2 text-sm">
          <p className="flex flex-wrap items-center gap-2" role="status">
            {tries.watching && "Watching. "}
            {sent > 0 && `${sent} sent. `}
            {tries.watching && (
              <button type="button" className="btn btn-sm" onClick={tries.now}>
                Struck now
              </button>
            )}
          </p>
          <Listening
            wanted={listening}
            listen={setListening}
            heard={sound !== null}
            trouble={trouble}
            device={microphone}
            choose={setMicrophone}
          />
          {tries.missed && <p>{tries.missed}</p>}
        </div>
      )}
      {sender && <Waiting sender={sender} hour={token} />}
      {tries.shown?.seen.map(({ clip }) => (
        <div key={tries.shown?.at} className="mt-3">
          <TryReplay clip={clip} label="The last try, a quarter as fast" gates={null} />
        </div>
      ))}
    </main>
  );
}
