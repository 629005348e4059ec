import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { onTaken } from "../outbox";
import { pageLane } from "../outbox/posts";
import { FeltWhere } from "../talk/FeltWhere";
import { type FeltPlace, placesWords, SPEAKS_UP } from "../talk/felt";
import type { Hand } from "../words";
import { tick, today, untick } from "./practice";
import type { Practised } from "./unsent";

type Drill = Schemas["DrillSent"];
type Ticked = Schemas["Ticked"];

/** The ladder of a drill with today's ticks, and how it felt. */
export function PracticeDrill(props: { drill: Drill; token: string; practised: Practised[]; hand: Hand }) {
  const { drill, token, practised, hand } = props;
  const day = today();
  const now = practised.find((each) => each.drill === drill.id && each.day === day);
  const cautions = useCautions(token, drill.id);
  const say = (change: Partial<Schemas["Tick"]>) => {
    const { step = 0, places = [], words = "" } = now ?? {};
    tick(token, now, { drill: drill.id, day, step, places, words, ...change });
  };
  const climb = (step: number) => (now && now.step === step ? untick(token, now) : say({ step }));
  return (
    <div className="mt-2" data-no-print>
      <ol aria-label={`Step by step: ${drill.name}`}>
        {drill.steps.map((step, i) => (
          <li key={step.do} className="flex items-center gap-3 border-t border-base-content/20 py-2">
            <span className="num w-5 shrink-0" aria-hidden>
              {i + 1}
            </span>
            <span className="flex-1">
              {step.do}
              <span className="block text-sm opacity-85">{step.dose}</span>
            </span>
            <Tick
              done={now !== undefined && now.step > i}
              label={`Done today, up to step ${i + 1}: ${drill.name}`}
              press={() => climb(i + 1)}
            />
          </li>
        ))}
      </ol>
      {drill.steps.length === 0 && (
        <p className="flex items-center justify-between border-t border-base-content/20 py-2">
          Done today
          <Tick done={now !== undefined} label={`Done today: ${drill.name}`} press={() => climb(0)} />
        </p>
      )}
      {now && <Felt key={now.id} now={now} hand={hand} say={say} cautions={cautions} name={drill.name} />}
    </div>
  );
}

function Tick({ done, label, press }: { done: boolean; label: string; press: () => void }) {
  return (
    <input
      type="checkbox"
      className="checkbox h-11 w-11 shrink-0 rounded-sm border-2 border-base-content"
      checked={done}
      aria-label={label}
      onChange={press}
    />
  );
}

function Felt(props: {
  now: Practised;
  hand: Hand;
  name: string;
  say: (change: Partial<Schemas["Tick"]>) => void;
  cautions: string[];
}) {
  const { now, hand, say, cautions, name } = props;
  const [words, setWords] = useState(now.words);
  const speaksUp = now.places.some((place) => SPEAKS_UP.has(place));
  return (
    <div className="border-l-4 border-brass bg-base-200 p-3">
      <FeltWhere places={now.places} hand={hand} change={(places: FeltPlace[]) => say({ places })} />
      <p className="mt-1 min-h-6 text-sm" role="status">
        {now.places.length > 0 && `Felt in: ${placesWords(now.places, hand)}.`}
      </p>
      {speaksUp && (
        <p role="alert" className="my-2 border-2 border-base-content bg-base-100 p-2 text-sm">
          <strong>Stop this drill for today.</strong> It must not be felt there. Your instructor is told.{" "}
          {cautions.join(" ")}
        </p>
      )}
      <label className="mt-1 block text-sm">
        <span className="font-semibold">How did it feel?</span>
        <textarea
          className="textarea mt-1 w-full"
          rows={2}
          maxLength={1000}
          value={words}
          aria-label={`How did it feel: ${name}`}
          onChange={(event) => {
            setWords(event.target.value);
            say({ words: event.target.value });
          }}
        />
      </label>
    </div>
  );
}

/** What the server says is to be taken care of after the last tick of a drill. */
function useCautions(token: string, drill: string): string[] {
  const queries = useQueryClient();
  const key = useRef(["cautions", token, drill]);
  const [texts, setTexts] = useState<string[]>(queries.getQueryData(key.current) ?? []);
  useEffect(
    () =>
      onTaken((lane, posts, answer) => {
        const [post] = posts;
        if (lane !== pageLane(token) || post?.kind !== "tick" || post.tick.drill !== drill) return;
        const { cautions } = answer as Ticked;
        queries.setQueryData(key.current, cautions);
        setTexts(cautions);
      }),
    [queries, token, drill],
  );
  return texts;
}
