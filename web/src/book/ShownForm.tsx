import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../api/client";
import { bookQuery } from "../api/queries";
import { FileButton } from "../parts/FileButton";
import { Trouble } from "../parts/Trouble";
import { failed } from "../shell/undo";
import type { Drill } from "./words";

/** Shows a drill of one's own by a picture or a clip of a few seconds, or no longer. */
export function ShownForm({ drill, has }: { drill: Drill; has: boolean }) {
  const queries = useQueryClient();
  const anew = () => queries.invalidateQueries({ queryKey: bookQuery.queryKey });
  const [asked, ask] = useState(false);
  const where = { params: { path: { piece: drill.id } } };
  const show = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return got(
        api.POST("/api/book/drills/{piece}/shown", {
          ...where,
          body: { file: "" },
          bodySerializer: () => form,
        }),
      );
    },
    onSuccess: anew,
  });
  const unshow = useMutation({
    mutationFn: () => got(api.DELETE("/api/book/drills/{piece}/shown", where)),
    onSuccess: anew,
    onError: failed,
  });
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-1">
        <FileButton
          size="btn-xs"
          accept="image/jpeg,image/png,image/webp,video/*"
          pending={show.isPending}
          choose={show.mutate}
        >
          {has ? "Another picture or clip" : "Own picture or clip"}
          <span className="sr-only"> for {drill.name}</span>
        </FileButton>
        {has && (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            onClick={() => (asked ? unshow.mutate() : ask(true))}
            onBlur={() => ask(false)}
          >
            {asked ? "Delete it, in sent lessons too?" : "Delete it"}
            <span className="sr-only">: what shows {drill.name}</span>
          </button>
        )}
      </div>
      <p className="mt-1 text-xs opacity-85">JPEG, PNG, WebP, or up to 12 s of video; 15 MB at most.</p>
      {show.error && <Trouble error={show.error} />}
    </div>
  );
}
