import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, got, type Schemas } from "../api/client";
import { onTaken, openOutbox, outbox, useOutbox } from "../outbox";
import { pageLane } from "../outbox/posts";
import { type Message, withUnsent } from "./unsent";

export type Page = Schemas["OwnPageOut"];

/** A student's own page as the server and what still waits in this browser say it. */
export function usePage(token: string) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const key = ["page", token];
  const page = useQuery({
    queryKey: key,
    queryFn: () => got(api.GET("/api/pages/{token}", { params: { path: { token } } })),
  });
  useEffect(() => void openOutbox(`page.${token}`).then(() => setOpen(true)), [token]);
  useEffect(
    () =>
      onTaken((lane, posts) => {
        if (lane !== pageLane(token)) return;
        // At once, so that what is done next builds on it; then as the server has it.
        queries.setQueryData<Page>(["page", token], (known) => known && withUnsent(known, posts));
        void queries.invalidateQueries({ queryKey: ["page", token] });
      }),
    [queries, token],
  );
  useOutbox(); // what is done is drawn before the server has it
  const waiting = open ? outbox().unsent(pageLane(token)) : [];
  return {
    ...page,
    open,
    shown:
      page.data &&
      withUnsent(
        page.data,
        waiting.map(({ post }) => post),
      ),
  };
}

/** Puts a question, in words or spoken, on its way. */
export function ask(token: string, message: Omit<Schemas["MessageIn"], "id">): void {
  const id = crypto.randomUUID();
  const post = { kind: "ask" as const, token, message: { id, ...message } };
  outbox().add({ id, lane: pageLane(token), subject: `question ${id}`, what: "your question", post });
}

export type { Message };
