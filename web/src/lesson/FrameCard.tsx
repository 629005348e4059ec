import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { lessonLane } from "../outbox/posts";
import { type Units, withError } from "../units";
import { momentWords, READING_WORDS, SIGNED } from "../words";
import { DrawnFrame } from "./DrawnFrame";
import type { Actions, Frame, Lesson } from "./useLessonActions";
import { useSavedText } from "./useSavedText";

interface Props {
  lesson: Lesson;
  frame: Frame;
  place: number;
  last: boolean;
  units: Units;
  actions: Actions;
}

const CLASS_OF = { student: "bg-clay", earlier: "bg-clay opacity-50", reference: "bg-slate" };

/** A frame of a lesson on the desk: its words, its place, and which of its values the student is shown. */
export function FrameCard({ lesson, frame, place, last, units, actions }: Props) {
  const { drawn } = frame;
  const moment = drawn.checkpoint ? momentWords(drawn.checkpoint) : "between pegs";
  const words = useSavedText(frame.words, {
    lane: lessonLane(lesson.id),
    subject: `words ${frame.id}`,
    what: `the words under ${drawn.name}, ${moment.toLowerCase()}`,
    post: (text) => ({ kind: "frame", lessonId: lesson.id, frameId: frame.id, change: { words: text } }),
    textOf: (post) => (post.kind === "frame" ? post.change.words : null),
  });
  const square = "btn btn-ghost btn-xs btn-square";
  return (
    <li className="plate grid grid-cols-[120px_1fr] gap-x-3 gap-y-2 p-3">
      <div className="col-span-2 flex items-center gap-2">
        <span className={`h-3 w-3 shrink-0 rounded-full ${CLASS_OF[drawn.whose]}`} aria-hidden />
        <h3 className="min-w-0 font-semibold">
          {drawn.name}, {moment.toLowerCase()}
        </h3>
        <span className="num shrink-0 text-xs">frame {frame.frame}</span>
        <span className="ml-auto flex">
          <button
            type="button"
            className={square}
            aria-label="Earlier"
            disabled={place === 0}
            onClick={() => actions.move(frame, place - 1)}
          >
            <ArrowUp size={14} aria-hidden />
          </button>
          <button
            type="button"
            className={square}
            aria-label="Later"
            disabled={last}
            onClick={() => actions.move(frame, place + 1)}
          >
            <ArrowDown size={14} aria-hidden />
          </button>
          <button
            type="button"
            className={square}
            aria-label="Take out"
            onClick={() => actions.remove(frame)}
          >
            <Trash2 size={14} aria-hidden />
          </button>
        </span>
      </div>
      <DrawnFrame frame={frame} src={`/api/lessons/${lesson.id}/frames/${frame.id}.jpg`} units={units} />
      <textarea
        className="textarea h-full w-full"
        rows={4}
        maxLength={2000}
        aria-label={`Words under ${drawn.name}, ${moment.toLowerCase()}`}
        placeholder="What is to be seen here?"
        {...words}
      />
      {drawn.values.length > 0 && drawn.whose !== "reference" && (
        <fieldset className="col-span-2 text-xs">
          <legend className="font-medium">Values the student is shown</legend>
          {drawn.values.map((value) => (
            <label key={value.reading} className="flex min-h-6 items-center gap-2 py-1">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={!frame.left_out.includes(value.reading)}
                onChange={(event) =>
                  actions.leaveOut(
                    frame,
                    event.target.checked
                      ? frame.left_out.filter((each) => each !== value.reading)
                      : [...frame.left_out, value.reading],
                  )
                }
              />
              <span>
                {READING_WORDS[value.reading]}{" "}
                <span className="num">
                  {withError(value.value, value.u95, value.unit, units, SIGNED.has(value.reading))}
                </span>
                {value.provisional && <em> · provisional: nobody has looked at its marks</em>}
              </span>
            </label>
          ))}
        </fieldset>
      )}
    </li>
  );
}
