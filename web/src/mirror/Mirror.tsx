import { useQuery } from "@tanstack/react-query";
import { ArrowLeft, RefreshCcw } from "lucide-react";
import { useEffect, useState } from "react";
import { api, got } from "../api/client";
import type { Camera, Facing } from "../camera/camera";
import { useCamera } from "../camera/useCamera";
import { keepOffline } from "../offline/keepOffline";
import { keep } from "../parts/keep";
import { Trouble } from "../parts/Trouble";
import { usePageTitle } from "../parts/usePageTitle";
import type { Hand } from "../words";
import { LineLayer } from "./LineLayer";
import { keptLines, type LineSet, type Lines } from "./lines";
import { Replay } from "./Replay";
import { SendClip } from "./SendClip";
import { useWatching } from "./useWatching";

const SET_WORDS: Record<LineSet, string> = {
  hips: "Two lines at the hips",
  plumb: "A plumb at the trail foot",
  seat: "A line behind the seat",
};

const CAMERAS: Record<Facing, Camera> = {
  user: { facing: "user" },
  environment: { facing: "environment" },
};

/** The phone as a mirror: a live picture with lines, and every swing at once again, slowly. Nothing leaves the phone. */
export function Mirror({ token }: { token: string }) {
  usePageTitle("Mirror lines");
  const page = useQuery({
    queryKey: ["page", token],
    queryFn: () => got(api.GET("/api/pages/{token}", { params: { path: { token } } })),
    retry: false,
  });
  const hand: Hand = page.data?.hand ?? "right";
  const asked = new URLSearchParams(window.location.search).get("drill");
  const drill = page.data?.focus.flatMap((each) => each.drills).find(({ id }) => id === asked);
  const [facing, setFacing] = useState<Facing>("user");
  const [open, setOpen] = useState(false);
  const [sending, setSending] = useState<File | null>(null);
  const camera = useCamera(open, CAMERAS[facing]);
  const watching = useWatching(camera.video, camera.shape !== null);
  const [set, lines, choose, put] = useLines(hand);
  const mirrored = facing === "user";
  useEffect(() => {
    if (open && camera.shape !== null) void keepOffline([`/api/pages/${token}`]);
  }, [open, camera.shape, token]);
  if (sending)
    return (
      <SendClip
        token={token}
        clip={sending}
        hand={hand}
        checked={drill}
        sent={watching.drop}
        back={() => setSending(null)}
      />
    );
  const error = camera.error ?? watching.error;
  const reopen = () => {
    watching.drop();
    setOpen(true);
  };
  const send = () => {
    setOpen(false); // nobody is watched while they write
    setSending(watching.shown);
  };
  return (
    <main data-theme="bench-dusk" className="flex h-dvh flex-col bg-dusk text-paper">
      <header className="flex items-center gap-3 p-2 text-sm">
        <a className="btn btn-ghost btn-sm" href={`/p/${token}`}>
          <ArrowLeft size={16} aria-hidden /> Your page
        </a>
        <h1 className="font-semibold">Mirror lines</h1>
        {open && (
          <button
            type="button"
            className="btn btn-ghost btn-sm ml-auto"
            onClick={() => {
              watching.stop();
              setFacing(mirrored ? "environment" : "user");
            }}
          >
            <RefreshCcw size={16} aria-hidden /> Other camera
          </button>
        )}
      </header>
      {error && <Trouble error={error} />}
      <div className="relative flex min-h-0 flex-1 items-center justify-center overflow-hidden">
        {!open && !watching.shown && <Before begin={() => setOpen(true)} />}
        <div
          className={`relative max-h-full ${open && !watching.shown ? "" : "hidden"}`}
          style={{
            aspectRatio: camera.shape ?? undefined,
            height: camera.shape && camera.shape < 1 ? "100%" : undefined,
          }}
        >
          <video
            ref={camera.video}
            className={`h-full w-full ${mirrored ? "-scale-x-100" : ""}`}
            aria-label="You, live"
            muted
            playsInline
          />
          {camera.shape !== null && <LineLayer lines={lines} hand={hand} mirrored={mirrored} change={put} />}
        </div>
        {watching.shown && (
          <Replay
            key={watching.shown.name}
            clip={watching.shown}
            lines={lines}
            hand={hand}
            mirrored={mirrored}
          />
        )}
        {watching.left !== null && (
          <p className="num absolute text-8xl font-bold" role="timer" aria-live="assertive">
            {watching.left}
          </p>
        )}
      </div>
      {(watching.shown || (open && camera.shape !== null)) && (
        <footer className="grid gap-2 p-3">
          <p className="text-sm" role="status">
            {watching.words}
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <select
              className="select select-sm w-auto"
              aria-label="Lines"
              value={set}
              onChange={(event) => choose(event.target.value as LineSet)}
            >
              {Object.entries(SET_WORDS).map(([each, words]) => (
                <option key={each} value={each}>
                  {words}
                </option>
              ))}
            </select>
            {watching.shown ? (
              <>
                <button type="button" className="btn btn-primary" onClick={open ? watching.goOn : reopen}>
                  Next swing
                </button>
                <button type="button" className="btn" onClick={send}>
                  {drill ? "Have this one checked" : "Send this one"}
                </button>
                <button type="button" className="btn" onClick={watching.drop}>
                  Throw it away
                </button>
              </>
            ) : watching.on ? (
              <button type="button" className="btn" onClick={watching.stop}>
                Stop watching
              </button>
            ) : (
              <button type="button" className="btn btn-primary" onClick={() => void watching.begin()}>
                Watch my swings
              </button>
            )}
          </div>
        </footer>
      )}
    </main>
  );
}

function Before({ begin }: { begin: () => void }) {
  return (
    <div className="max-w-sm p-6">
      <p className="text-lg font-semibold">
        Put the phone on a stand, belt high, and see yourself with lines.
      </p>
      <p className="mt-2">
        It only shows. It keeps a swing when you tell it to watch, on this phone alone, until you close the
        page. Nothing is sent unless you send it.
      </p>
      <button type="button" className="btn btn-primary mt-4" onClick={begin}>
        Open the camera
      </button>
    </div>
  );
}

/** Which lines stand, and where; kept in this browser. */
function useLines(hand: Hand): [LineSet, Lines, (set: LineSet) => void, (lines: Lines) => void] {
  const key = (set: LineSet) => `tropometer.mirror.${set}.${hand}`;
  const read = (set: LineSet) => keptLines(localStorage.getItem(key(set)), set, hand);
  const [set, setSet] = useState<LineSet>("hips");
  const [lines, setLines] = useState(() => read("hips"));
  // biome-ignore lint/correctness/useExhaustiveDependencies: whose lines they are is known once the page is
  useEffect(() => setLines(read(set)), [hand]);
  const choose = (next: LineSet) => {
    setSet(next);
    setLines(read(next));
  };
  const put = (next: Lines) => {
    setLines(next);
    keep(localStorage, key(set), JSON.stringify(next));
  };
  return [set, lines, choose, put];
}
