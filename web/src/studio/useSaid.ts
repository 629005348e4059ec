import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Schemas } from "../api/client";
import { hourQuery } from "../api/queries";
import { onTaken, outbox, useOutbox } from "../outbox";
import { hourLane, type Post } from "../outbox/posts";
import type { Ladder } from "./ladderWords";

/** A ladder with what was said here and is still on its way. */
export function withSaid(ladder: Ladder, posts: Post[]): Ladder {
  return posts.reduce(withOne, ladder);
}

function withOne(ladder: Ladder, post: Post): Ladder {
  if (post.kind === "hour") return { ...ladder, about: post.change.about ?? ladder.about };
  if (post.kind !== "rung") return ladder;
  const said = Object.fromEntries(Object.entries(post.change).filter(([, words]) => words !== null));
  return {
    ...ladder,
    tries: ladder.tries.map((each) => (each.id === post.tryId ? { ...each, ...said } : each)),
  };
}

/** An hour's ladder with what is said of it here, and how to say it: nothing that is typed is lost. */
export function useSaid(saved: Ladder) {
  const queries = useQueryClient();
  const { id } = saved;
  const lane = hourLane(id);
  useOutbox();
  useEffect(
    () =>
      onTaken((taken, _, answer) => {
        if (taken === hourLane(id)) queries.setQueryData(hourQuery(id).queryKey, answer as Ladder);
      }),
    [queries, id],
  );
  const add = (subject: string, what: string, post: Post) =>
    outbox().add({ id: crypto.randomUUID(), lane, subject, what, post });
  const unsent = outbox().unsent(lane);
  return {
    ladder: withSaid(
      saved,
      unsent.map(({ post }) => post),
    ),
    sayAbout: (about: string) =>
      add("about", "what the studio hour is for", { kind: "hour", hourId: id, change: { about } }),
    sayOf: (tryId: string, change: Schemas["RungChange"]) =>
      add(`${tryId} ${Object.keys(change)}`, "what was said of a try", {
        kind: "rung",
        hourId: id,
        tryId,
        change,
      }),
  };
}
