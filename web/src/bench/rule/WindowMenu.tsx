import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, got } from "../../api/client";
import { useBench, useBenchStore } from "../benchContext";
import { frameOf, PLAYER } from "../benchState";
import { useDoing } from "../commands/doings";
import { Menu } from "../Menu";
import { useSayViews } from "../marks/useSayViews";
import { useShowPlayer } from "../marks/useShowPlayer";

const SHORTEST = 2;

/** Which frames of its clip the active stage's swing is, and a stretch of it as a swing of its own. */
export function WindowMenu() {
  const bench = useBenchStore();
  const active = useBench((all) => all.active);
  const state = useBench((all) => all.sides[active]);
  const queries = useQueryClient();
  const go = useNavigate();
  const save = useMutation({
    mutationFn: (body: { first: number | null; last: number | null }) => {
      const id = bench.getState().sides[bench.getState().active]?.clip.id ?? "";
      return got(api.PUT("/api/clips/{id}/window", { params: { path: { id } }, body }));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["swing"] }),
    onError: (error) => bench.getState().set({ notice: error.message }),
  });
  const cut = useMutation({
    mutationFn: (body: { first: number; last: number }) => {
      const id = state?.clip.id ?? "";
      return got(api.POST("/api/clips/{id}/swings", { params: { path: { id } }, body }));
    },
    onSuccess: async ({ swing_id }) => {
      await queries.invalidateQueries({ queryKey: ["swings"] });
      go(`/bench/${swing_id}`);
    },
    onError: (error) => bench.getState().set({ notice: error.message }),
  });
  const player = useShowPlayer(state?.clip.id ?? "");
  const views = useSayViews(active);
  useDoing("starts_here", () => {
    const at = frameOf(bench.getState());
    if (!state || at > state.clip.window.last - SHORTEST) return false;
    save.mutate({ first: at, last: state.clip.window.last });
  });
  useDoing("ends_here", () => {
    const at = frameOf(bench.getState());
    if (!state || at < state.clip.window.first + SHORTEST) return false;
    save.mutate({ first: state.clip.window.first, last: at });
  });
  if (!state) return null;
  const { clip, swing } = state;
  const { first, last } = clip.window;
  const whole = first === 0 && last === clip.frame_count - 1;
  return (
    <Menu command="window" words="Window">
      <div className="grid w-72 gap-1 text-sm">
        <p>
          The swing is frames{" "}
          <span className="num">
            {first} to {last}
          </span>{" "}
          of {clip.frame_count}
          {!whole && clip.window_from === "found" && ", found by movement and sound"}.
        </p>
        <Ends first={first} last={last} save={save.mutate} />
        <button
          type="button"
          className={line}
          disabled={whole}
          onClick={() => save.mutate({ first: null, last: null })}
        >
          It is the whole clip
        </button>
        {state.pairing && (
          <fieldset className="border-base-content/20 border-t pt-1">
            <legend className="sr-only">Both views show</legend>
            {[true, false].map((one) => (
              <label key={String(one)} className="flex items-center gap-2 py-0.5">
                <input
                  type="radio"
                  className="radio radio-xs"
                  name="views"
                  checked={state.pairing?.one_swing === one}
                  onChange={() => views.mutate(one)}
                />
                {one ? "Both views are one swing" : "Each view is a swing of its own"}
              </label>
            ))}
            {views.error && (
              <p role="alert" className="text-error">
                {views.error.message}
              </p>
            )}
          </fieldset>
        )}
        <button
          type="button"
          className={line}
          onClick={() => bench.getState().set({ tool: PLAYER, selected: null })}
        >
          {clip.player_at ? "Click who plays again" : "Not the player? Click who plays"}
        </button>
        {clip.player_at && (
          <button type="button" className={line} onClick={() => player.mutate(null)}>
            Let the machine find the player
          </button>
        )}
        {swing.student && (
          <button
            type="button"
            className={line}
            disabled={whole || cut.isPending}
            onClick={() => cut.mutate({ first, last })}
          >
            Keep these frames as one more swing
          </button>
        )}
      </div>
    </Menu>
  );
}

const line = "btn btn-ghost btn-xs justify-start font-normal";

/** Says that the swing starts or ends at the frame that is shown. */
function Ends(props: {
  first: number;
  last: number;
  save: (window: { first: number; last: number }) => void;
}) {
  const { first, last, save } = props;
  const frame = useBench(frameOf);
  return (
    <>
      <button
        type="button"
        className={line}
        disabled={frame > last - SHORTEST || frame === first}
        onClick={() => save({ first: frame, last })}
      >
        It starts at frame {frame} <kbd className="num ml-auto opacity-70">{"{"}</kbd>
      </button>
      <button
        type="button"
        className={line}
        disabled={frame < first + SHORTEST || frame === last}
        onClick={() => save({ first, last: frame })}
      >
        It ends at frame {frame} <kbd className="num ml-auto opacity-70">{"}"}</kbd>
      </button>
    </>
  );
}
