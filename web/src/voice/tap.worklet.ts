/** Hands on what a microphone hears, in blocks, each with the time on the context's clock at which it ends. */

declare const sampleRate: number;
declare const currentTime: number;
declare function registerProcessor(name: string, processor: new () => unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

const BLOCK = 1920; // 40 ms at 48 000 a second

class Tap extends AudioWorkletProcessor {
  #block = new Float32Array(BLOCK);
  #filled = 0;

  process([input]: Float32Array[][]): boolean {
    const heard = input?.[0];
    if (!heard) return true; // nothing is connected any more
    for (let from = 0; from < heard.length; ) {
      const part = heard.subarray(from, from + BLOCK - this.#filled);
      this.#block.set(part, this.#filled);
      this.#filled += part.length;
      from += part.length;
      if (this.#filled === BLOCK) {
        const end = currentTime + from / sampleRate;
        this.port.postMessage({ samples: this.#block, end }, [this.#block.buffer]);
        this.#block = new Float32Array(BLOCK);
        this.#filled = 0;
      }
    }
    return true;
  }
}

registerProcessor("tap", Tap);
