import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Mic, MicOff } from "lucide-react";
import { api, got } from "../../api/client";
import { walkQuery } from "../../api/queries";
import type { Lesson } from "../../lesson/useLessonActions";
import { WalkDesk } from "../../lesson/WalkDesk";
import { useBenchStore } from "../benchContext";
import { useDoing } from "../commands/doings";
import { hint } from "../commands/table";
import { ChalkTools } from "./ChalkTools";
import { beginTake, endTake, useRecording } from "./recording";

/** A walk for whoever has no microphone, or would rather be read. */
function WithoutVoice({ lesson }: { lesson: Lesson }) {
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => got(api.POST("/api/lessons/{id}/walk/silent", { params: { path: { id: lesson.id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["walk", lesson.id] }),
  });
  return (
    <p className="flex flex-wrap items-center gap-2 text-sm">
      <button
        type="button"
        className="btn btn-sm"
        disabled={make.isPending || lesson.sent_at !== null}
        onClick={() => make.mutate()}
      >
        <MicOff size={15} aria-hidden /> Without a voice
      </button>
      Through the lesson's frames and their words, at a reader's pace.
      {make.error && <span role="alert">{make.error.message}</span>}
    </p>
  );
}

/** The walk of a lesson: recorded here, on the stages as they stand, and mended beneath. */
export function WalkPanel({ lesson }: { lesson: Lesson }) {
  const bench = useBenchStore();
  const { phase, trouble, devices, device } = useRecording();
  const walk = useQuery(walkQuery(lesson.id));
  const said = (walk.data?.takes.length ?? 0) > 0;
  const begin = () => void beginTake(bench, lesson.id);
  useDoing("record_walk", () => (phase === "idle" ? begin() : void endTake()));
  return (
    <section aria-label="Walk" className="mb-4 grid gap-2 border-b border-base-content/20 pb-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-lg font-semibold">Walk</h2>
        <button
          type="button"
          className="btn btn-sm ml-auto"
          onClick={begin}
          disabled={phase !== "idle" || lesson.sent_at !== null}
          title={hint("record_walk")}
        >
          <Mic size={15} aria-hidden /> {said ? "Record more" : "Record"}
        </button>
      </div>
      {trouble && (
        <p role="alert" className="text-sm">
          {trouble}
        </p>
      )}
      {phase === "idle" && lesson.sent_at === null && <ChalkTools />}
      {phase === "idle" && devices.length > 1 && (
        <label className="flex items-center gap-2 text-sm">
          Microphone
          <select
            className="select select-sm"
            value={device ?? ""}
            onChange={(event) => useRecording.setState({ device: event.target.value || null })}
          >
            <option value="">The browser's own</option>
            {devices.map(({ id, label }) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
      {!said && phase === "idle" && lesson.frames.length > 0 && <WithoutVoice lesson={lesson} />}
      {!said && phase === "idle" && (
        <p className="text-sm">
          Speak while you work on the stages: frames, zoom, gauges, chalk and where you point are kept with
          your voice. It begins after a count of three.
        </p>
      )}
      {said && walk.data && phase === "idle" && (
        <WalkDesk walk={walk.data} lesson={lesson} sayAnew={(cut) => void beginTake(bench, lesson.id, cut)} />
      )}
    </section>
  );
}
