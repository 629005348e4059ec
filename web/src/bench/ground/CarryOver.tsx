import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "../../api/client";
import { sameSetupQuery } from "../../api/queries";
import { day } from "../../parts/when";
import { useBench } from "../benchContext";
import { MAT, type Side, type SideState } from "../benchState";

/** The mat of another clip of the same set-up, looked for in this clip's picture. */
export function CarryOver({ side, state }: { side: Side; state: SideState }) {
  const others = useQuery(sameSetupQuery(state.clip.id));
  const edit = useBench((bench) => bench.edit);
  const set = useBench((bench) => bench.set);
  const [said, setSaid] = useState("");
  const carry = useMutation({
    mutationFn: (source_id: string) =>
      got(
        api.GET("/api/clips/{id}/same-setup/{source_id}", {
          params: { path: { id: state.clip.id, source_id } },
        }),
      ),
    onMutate: () => setSaid("Looking for the mat…"),
    onSuccess: (found) => {
      edit(side, { kind: "mat", value: found.mat });
      set({ tool: null, selected: MAT, notice: found.said });
      setSaid("");
    },
    onError: (error) => setSaid(error.message),
  });
  if (!others.data?.length) return null;
  return (
    <section aria-label={`Same set-up, ${side}`} className="plate grid gap-1 p-1.5 text-xs">
      <label className="grid gap-1">
        Filmed from the same place as
        <select
          className="select select-xs w-full"
          value=""
          disabled={carry.isPending}
          onChange={(event) => carry.mutate(event.target.value)}
        >
          <option value="">choose a clip: its mat is carried over</option>
          {others.data.map((other) => (
            <option key={other.clip_id} value={other.clip_id}>
              {other.title}, {day(other.added_at)}
            </option>
          ))}
        </select>
      </label>
      {said && <p role="status">{said}</p>}
    </section>
  );
}
