import { Radio, RadioGroup, RadioProvider } from "@ariakit/react";
import { useBench } from "../benchContext";
import { clickOnly } from "../clickOnly";
import { hint } from "../commands/table";
import { RATES, rateWords } from "./rates";

const SLOWEST_FIRST = [...RATES].reverse();

/** Letting the swing run, on a scale of shares of real time, once or round between its pegs. */
export function Runner() {
  const playing = useBench((bench) => bench.playing);
  const rate = useBench((bench) => bench.rate);
  const looping = useBench((bench) => bench.looping);
  const play = useBench((bench) => bench.play);
  const set = useBench((bench) => bench.set);
  const runs = playing !== null;
  return (
    <div className="flex items-center gap-1">
      <button
        {...clickOnly}
        type="button"
        className={`btn btn-sm w-14 px-0 ${runs ? "btn-primary" : ""}`}
        onClick={play}
        title={hint("run")}
      >
        {runs ? "Stand" : "Run"}
      </button>
      <RadioProvider
        value={rate}
        setValue={(value) => {
          const chosen = Number(value);
          set({ rate: chosen, playing: runs ? chosen : null });
        }}
      >
        <RadioGroup
          {...clickOnly}
          className="tape-edge flex h-8! items-stretch"
          aria-label="Playing rate, of real time"
          title={`Of real time. ${hint("slower")}, ${hint("faster").toLowerCase()}`}
        >
          {SLOWEST_FIRST.map((each) => (
            <Radio
              key={each}
              value={each}
              render={<button type="button" />}
              className={`num cursor-pointer rounded-t-sm px-1.5 pb-2 text-xs ${each === rate ? "bg-brass/30 font-semibold" : ""}`}
            >
              {rateWords(each)}
            </Radio>
          ))}
        </RadioGroup>
      </RadioProvider>
      <button
        {...clickOnly}
        type="button"
        className={`btn btn-sm px-1.5 font-normal ${looping ? "btn-primary" : ""}`}
        aria-pressed={looping}
        onClick={() => set({ looping: !looping, playing: null })}
        title={hint("loop")}
      >
        Peg to peg
      </button>
    </div>
  );
}
