import { Pause, Play, Repeat } from "lucide-react";
import { Toggle } from "../../parts/Toggle";
import { useBench } from "../benchContext";
import { RATES, rateWords } from "../rule/rates";

const SHUTTLE_FASTEST = 1;

/** Playing in real time or slower, round a stretch between pegs, or by the shuttle. */
export function Player() {
  const playing = useBench((bench) => bench.playing);
  const rate = useBench((bench) => bench.rate);
  const looping = useBench((bench) => bench.looping);
  const play = useBench((bench) => bench.play);
  const set = useBench((bench) => bench.set);
  return (
    <>
      <button
        type="button"
        className="btn btn-sm btn-square ml-2"
        onClick={play}
        aria-label={playing === null ? "Play" : "Stand still"}
        title={playing === null ? "Play (Space)" : "Stand still (Space)"}
      >
        {playing === null ? <Play size={18} aria-hidden /> : <Pause size={18} aria-hidden />}
      </button>
      <select
        className="select select-sm num w-19"
        aria-label="Playing rate, of real time"
        title="Of real time (- and =)"
        value={rate}
        onChange={(event) => {
          const chosen = Number(event.target.value);
          set({ rate: chosen, playing: playing === null ? null : chosen });
        }}
      >
        {RATES.map((each) => (
          <option key={each} value={each}>
            {rateWords(each)}
          </option>
        ))}
      </select>
      <Toggle
        on={looping}
        label="Loop between the pegs"
        title="Loop between the pegs (O)"
        onClick={() => set({ looping: !looping, playing: null })}
      >
        <Repeat size={16} aria-hidden />
      </Toggle>
      <Shuttle />
    </>
  );
}

/** A lever that springs back: the farther it is held from the middle, the faster the swing runs. */
function Shuttle() {
  const playing = useBench((bench) => bench.playing);
  const set = useBench((bench) => bench.set);
  const rest = () => set({ playing: null });
  // The square keeps the slow part wide under the finger.
  const lever = Math.sign(playing ?? 0) * Math.sqrt(Math.abs(playing ?? 0) / SHUTTLE_FASTEST);
  return (
    <input
      type="range"
      className="range range-xs w-16 [--range-fill:0]"
      aria-label="Shuttle"
      title="Hold to shuttle (Z, X)"
      min={-1}
      max={1}
      step={0.02}
      value={lever}
      onChange={(event) => {
        const value = Number(event.target.value);
        set({ playing: value === 0 ? null : Math.sign(value) * value * value * SHUTTLE_FASTEST });
      }}
      onPointerUp={rest}
      onPointerCancel={rest}
      onKeyUp={rest}
      onBlur={rest}
    />
  );
}
