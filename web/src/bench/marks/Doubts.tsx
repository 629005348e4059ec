import { useMutation, useQueryClient } from "@tanstack/react-query";
import { memo, useState } from "react";
import { api, got, type Schemas } from "../../api/client";
import { keep } from "../../parts/keep";
import type { Kind } from "../../send/KindFields";
import { CLUB_CLASS_WORDS, momentWords, SWING_LENGTH_WORDS, VIEW_WORDS, type View } from "../../words";
import { useBench } from "../benchContext";
import { paired, type Side, type SideState } from "../benchState";
import { useSayKind } from "../useSayKind";
import { useSayViews } from "./useSayViews";

const SURE = 0.5;
const CLOSE = 0.1; // a rate that differs by less is the same

const BENT =
  "Straight lines look bent here: an ultra-wide lens. Toward the picture's edges lengths and angles are wrong by more than is said; film with the phone's plain lens.";

type Change = Schemas["ClipChange"];

interface Doubt<Told> {
  id: string;
  says: string;
  offers: string;
  change: Told;
}

interface Answer {
  words: string;
  give: () => void;
}

/** What a clip or a swing's views seem to show otherwise than was said: one click to change, one to keep. */
export const Doubts = memo(function Doubts({ side, state }: { side: Side; state: SideState }) {
  const { clip } = state;
  const queries = useQueryClient();
  const [kept, setKept] = useState(() => localStorage.getItem(keptKey(clip.id)) ?? "");
  const sayViews = useSayViews(side);
  const sayKind = useSayKind(side);
  const change = useMutation({
    mutationFn: (body: Change) =>
      got(api.PUT("/api/clips/{id}/about", { params: { path: { id: clip.id } }, body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["swing"] }),
  });
  const keepIt = (id: string) => {
    const all = `${kept} ${id}`.trim();
    keep(localStorage, keptKey(clip.id), all);
    setKept(all);
  };
  const keeping = (id: string): Answer => ({ words: "Keep", give: () => keepIt(id) });
  const isKept = (id: string) => kept.split(" ").includes(id);
  const two: Answer = { words: "Two swings", give: () => sayViews.mutate(false) };
  const doubt = doubtsOf(state).find((each) => !isKept(each.id));
  // What is asked of the swing is asked once, not on each of its views.
  const asked = useBench(
    (bench) => side === "student" || !paired(bench) || bench.lying.student === undefined,
  );
  const kind = asked ? kindDoubtOf(state) : null;
  const views = asked ? state.pairing : null;
  const unlike = views?.unlike ? unlikeWords(views.unlike) : "";
  const unlikeId = `views-${unlike.replaceAll(" ", "_")}`;
  let question: { says: string; answers: Answer[] } | null = null;
  if (doubt)
    question = {
      says: doubt.says,
      answers: [{ words: doubt.offers, give: () => change.mutate(doubt.change) }, keeping(doubt.id)],
    };
  else if (clip.proposals.bends != null && !isKept("lens"))
    question = { says: BENT, answers: [{ words: "Understood", give: () => keepIt("lens") }] };
  else if (views?.one_swing === null)
    question = {
      says: `Do both views show one swing? ${unlike || "Until that is said, each is read by itself."}`,
      answers: [{ words: "One swing", give: () => sayViews.mutate(true) }, two],
    };
  else if (views?.one_swing && unlike && !isKept(unlikeId))
    question = { says: `${unlike} Are they two swings?`, answers: [two, keeping(unlikeId)] };
  else if (kind && !isKept(kind.id))
    question = {
      says: kind.says,
      answers: [{ words: kind.offers, give: () => sayKind.mutate(kind.change) }, keeping(kind.id)],
    };
  if (!question) return null;
  const trouble = change.error ?? sayViews.error ?? sayKind.error;
  return (
    <div
      className="flex w-full items-center gap-2 rounded-sm border border-dashed border-brass bg-dusk/90 px-2 py-1 text-sm"
      data-doubts={side}
    >
      <p className="min-w-0 flex-1">{trouble?.message ?? question.says}</p>
      {question.answers.map(({ words, give }, i) => (
        <button
          key={words}
          type="button"
          className={`btn btn-xs ${i === 0 ? "btn-primary" : ""}`}
          disabled={change.isPending || sayViews.isPending || sayKind.isPending}
          onClick={give}
        >
          {words}
        </button>
      ))}
    </div>
  );
});

const keptKey = (clipId: string) => `tropometer.kept.${clipId}`;

function unlikeWords({ first, last, a_view, b_view, a_s, b_s }: Schemas["UnlikeOut"]): string {
  const stretch = `${momentWords(first)} to ${momentWords(last).toLowerCase()}`;
  return `${stretch}: ${seen(a_s, a_view)}, ${seen(b_s, b_view)}.`;
}

const seen = (seconds: number, view: View) => `${seconds.toFixed(2)} s ${VIEW_WORDS[view].toLowerCase()}`;

/** What the swing's length or its club's shaft seem to be, otherwise than was said or where nothing was. */
function kindDoubtOf({ clip, swing, kindSeen }: SideState): Doubt<Partial<Kind>> | null {
  const { club_class, swing_length } = swing;
  const proposed = clip.proposals.swing_length;
  const looks = proposed && proposed.confidence >= SURE ? proposed.value : null;
  const length = kindSeen.swing_length ?? looks;
  if (length && length !== swing_length)
    return {
      id: `length-${length}-${swing_length}`,
      says: `By how far the arms go back: ${SWING_LENGTH_WORDS[length].toLowerCase()}.`,
      offers: "Say so",
      change: { swing_length: length },
    };
  if (kindSeen.club_class && kindSeen.club_class !== club_class)
    return {
      id: `club-${kindSeen.club_class}-${club_class}`,
      says: `By the length of its shaft: ${CLUB_CLASS_WORDS[kindSeen.club_class].toLowerCase()}.`,
      offers: "Say so",
      change: { club_class: kindSeen.club_class },
    };
  return null;
}

function doubtsOf({ clip, swing }: SideState): Doubt<Change>[] {
  const { view, hand, capture_fps } = clip.proposals;
  const said: Change = { view: clip.view, capture_fps: clip.capture_fps, flipped: clip.flipped };
  const doubts: Doubt<Change>[] = [];
  if (view && view.value !== clip.view && view.confidence >= SURE)
    doubts.push({
      id: `view-${clip.view}`,
      says: `This clip looks ${VIEW_WORDS[view.value].toLowerCase()}.`,
      offers: "Change",
      change: { ...said, view: view.value },
    });
  const now = clip.capture_fps ?? clip.played_fps;
  if (capture_fps && Math.abs(capture_fps / now - 1) > CLOSE && clip.capture_from !== "file")
    doubts.push({
      id: `rate-${clip.capture_fps}`,
      says: `It moves as if shot at ${Math.round(capture_fps)}/s, not ${Math.round(now)}/s.`,
      offers: `Use ${Math.round(capture_fps)}`,
      change: { ...said, capture_fps: capture_fps === clip.played_fps ? null : capture_fps },
    });
  if (hand && hand.value !== swing.hand && hand.confidence >= SURE && view?.value === clip.view)
    doubts.push({
      id: `hand-${clip.flipped}`,
      says: `The player looks ${hand.value}-handed. Was it filmed in a mirror?`,
      offers: "Turn it round",
      change: { ...said, flipped: !clip.flipped },
    });
  return doubts;
}
