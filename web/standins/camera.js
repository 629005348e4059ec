/**
 * Two cameras and a microphone that are not there: a made-up golfer hits a ball every eight seconds.
 *
 * Loaded before a page's own scripts it answers when the page asks the browser for them; what is really there
 * stays beside them. All go by the machine's clock, so that two pages see and hear the same ball.
 * What is played is written by tropometer/standins/camera.py.
 */
(() => {
  const AT = "/stand-in/tries/";
  const FPS = 30;
  const EVERY_MS = 8000; // a ball, counted from 1970
  const STRUCK_MS = 4500; // of them
  const LOUD = 0.5;
  const ROOM = 0.003;
  const DYING_S = 0.008;
  const AHEAD_MS = 1000;

  /** @typedef {"face_on" | "down_the_line"} View */
  /** @typedef {{ file: string; struck: number; ends: number[] }} Side of one try: JPEGs, one after the other */
  /** @typedef {Record<View, Side>} Try */
  // A test's: frame numbers; more knocks beside the strike; or nobody who hits a ball.
  /** @typedef {{ numbered?: boolean; knocksMs?: number[]; idle?: boolean }} Wishes */

  /** @type {Record<View, string>} */
  const CAMERAS = { face_on: "Face-on, not there", down_the_line: "Down the line, not there" };
  const EAR = "not-there-ear";
  /** @type {Map<View, MediaStreamTrack[]>} */
  const open = new Map();
  /** @type {Set<View>} */
  const unplugged = new Set();
  /** @type {Wishes} */
  const wishes = /** @type {any} */ (window).notThere ?? {};

  const now = () => performance.timeOrigin + performance.now();
  /** @type {(view: View) => string} */
  const idOf = (view) => `not-there-${view}`;
  /** @type {() => View[]} */
  const plugged = () => /** @type {View[]} */ (Object.keys(CAMERAS)).filter((view) => !unplugged.has(view));

  /** @type {Promise<Try[]> | null} */
  let known = null;
  const tries = () => {
    known ??= fetch(`${AT}tries.json`).then((answer) => answer.json());
    return known;
  };

  /** A try's pictures from one side; only the latest are held. */
  class Film {
    /** @type {{ side: Side; pictures: Promise<Blob[]> } | null} */
    #held = null;

    /** @param {Side} side */
    async pictures(side) {
      if (this.#held?.side !== side) this.#held = { side, pictures: this.#load(side) };
      return this.#held.pictures;
    }

    /** @param {Side} side */
    async #load({ file, ends }) {
      const bytes = await (await fetch(AT + file)).arrayBuffer();
      return ends.map((end, i) => new Blob([bytes.slice(ends[i - 1] ?? 0, end)], { type: "image/jpeg" }));
    }
  }

  /** The number as tropometer/golfer/strip.py paints it. @type {(on: CanvasRenderingContext2D, number: number) => void} */
  function paint(on, number) {
    const [block, margin, bits] = [32, 8, 16];
    on.fillStyle = "rgb(128 128 128)";
    on.fillRect(0, 0, bits * block + 2 * margin, block + 2 * margin);
    for (let bit = 0; bit < bits; bit += 1) {
      on.fillStyle = (number >> (bits - 1 - bit)) & 1 ? "rgb(235 235 235)" : "rgb(16 16 16)";
      on.fillRect(margin + bit * block, margin, block, block);
    }
  }

  /** @param {View} view */
  async function camera(view) {
    const all = await tries();
    const film = new Film();
    const canvas = document.createElement("canvas");
    const on = canvas.getContext("2d");
    if (!on) throw new DOMException("no canvas", "NotReadableError");
    let busy = false;
    const draw = async () => {
      const ball = Math.floor(now() / EVERY_MS);
      const side = all[ball % all.length]?.[view];
      if (!side) return;
      const pictures = await film.pictures(side);
      const at = ((wishes.idle ? 0 : now() - ball * EVERY_MS) - STRUCK_MS) * (FPS / 1000);
      const picture = pictures[Math.max(0, Math.min(pictures.length - 1, Math.round(at) + side.struck))];
      if (!picture) return;
      const drawn = await createImageBitmap(picture);
      if (canvas.width !== drawn.width) [canvas.width, canvas.height] = [drawn.width, drawn.height];
      on.drawImage(drawn, 0, 0);
      drawn.close();
      if (wishes.numbered) paint(on, Math.max(0, Math.round(at + (STRUCK_MS / 1000) * FPS)));
    };
    await draw();
    const stream = canvas.captureStream(FPS);
    const [track] = stream.getVideoTracks();
    if (!track) throw new DOMException("no track", "NotReadableError");
    const settings = { deviceId: idOf(view), width: canvas.width, height: canvas.height, frameRate: FPS };
    track.getSettings = () => settings;
    const timer = window.setInterval(() => {
      if (track.readyState === "ended") {
        window.clearInterval(timer);
        return;
      }
      if (busy) return;
      busy = true;
      void draw().finally(() => {
        busy = false;
      });
    }, 1000 / FPS);
    open.set(view, [...(open.get(view) ?? []), track]);
    return track;
  }

  function microphone() {
    const context = new AudioContext({ sampleRate: 48_000 });
    const into = context.createMediaStreamDestination();
    const noise = context.createBuffer(1, 2 * context.sampleRate, context.sampleRate);
    noise.getChannelData(0).forEach((_, i, samples) => {
      samples[i] = 2 * Math.random() - 1;
    });
    const sound = (/** @type {number} */ loudness) => {
      const [source, gain] = [context.createBufferSource(), context.createGain()];
      source.buffer = noise;
      gain.gain.value = loudness;
      source.connect(gain).connect(into);
      return { source, gain };
    };
    const room = sound(ROOM);
    room.source.loop = true;
    room.source.start();
    const knock = (/** @type {number} */ at) => {
      const { source, gain } = sound(LOUD);
      gain.gain.setValueAtTime(LOUD, at);
      gain.gain.setTargetAtTime(0, at, DYING_S);
      source.start(at, 0, 10 * DYING_S);
    };
    const [track] = into.stream.getAudioTracks();
    if (!track) throw new DOMException("no track", "NotReadableError");
    let told = now();
    const timer = window.setInterval(() => {
      if (track.readyState === "ended") {
        window.clearInterval(timer);
        void context.close();
        return;
      }
      const to = now() + AHEAD_MS;
      const balls = [Math.floor(told / EVERY_MS), Math.floor(to / EVERY_MS)];
      for (const ball of wishes.idle ? [] : new Set(balls))
        for (const late of [0, ...(wishes.knocksMs ?? [])]) {
          const at = ball * EVERY_MS + STRUCK_MS + late;
          if (at > told && at <= to) knock(Math.max(0, context.currentTime + (at - now()) / 1000));
        }
      told = to;
    }, AHEAD_MS / 4);
    const settings = { deviceId: EAR };
    track.getSettings = () => settings;
    return track;
  }

  const media = navigator.mediaDevices;
  if (!media) return;
  const real = { devices: media.enumerateDevices.bind(media), get: media.getUserMedia.bind(media) };

  /** @type {(kind: MediaDeviceKind, deviceId: string, label: string) => MediaDeviceInfo} */
  const device = (kind, deviceId, label) => ({ kind, deviceId, label, groupId: "", toJSON: () => ({}) });

  media.enumerateDevices = async () => [
    ...(await real.devices()).filter(({ deviceId }) => deviceId !== ""),
    ...plugged().map((view) => device("videoinput", idOf(view), CAMERAS[view])),
    device("audioinput", EAR, "A microphone that is not there"),
  ];

  /** @type {(wanted: MediaTrackConstraints | boolean | undefined) => string | null} */
  const wantedId = (wanted) => {
    const id = typeof wanted === "object" ? wanted.deviceId : null;
    return id && typeof id === "object" && "exact" in id ? String(id.exact) : null;
  };

  media.getUserMedia = async (wanted = {}) => {
    const { video, audio } = wanted;
    const [seen, heard] = [wantedId(video), wantedId(audio)];
    if ((seen ?? heard ?? "not-there").startsWith("not-there") === false) return real.get(wanted);
    const stream = new MediaStream();
    if (video) {
      const back = typeof video === "object" && video.facingMode === "environment";
      const view = plugged().find((each) => (seen ? idOf(each) === seen : !back || each === "down_the_line"));
      if (!view) throw new DOMException("it is not there", seen ? "OverconstrainedError" : "NotFoundError");
      stream.addTrack(await camera(view));
    }
    if (audio) stream.addTrack(microphone());
    return stream;
  };

  /** Pulls a camera's plug. @param {View} view */
  const unplug = (view) => {
    unplugged.add(view);
    for (const track of open.get(view) ?? []) {
      track.stop();
      track.dispatchEvent(new Event("ended"));
    }
    open.delete(view);
    media.dispatchEvent(new Event("devicechange"));
  };
  /** @type {any} */ (window).notThere = Object.assign(wishes, {
    unplug,
    everyMs: EVERY_MS,
    struckMs: STRUCK_MS,
  });
})();
