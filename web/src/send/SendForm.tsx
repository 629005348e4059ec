import { useEffect, useRef } from "react";
import { api, got } from "../api/client";
import { KeptNote } from "../parts/KeptNote";
import { useKeptForm } from "../parts/useKeptForm";
import type { Hand } from "../words";
import { ClipPicker } from "./ClipPicker";
import { useClipUploads } from "./clipUploads";
import { HandInButton } from "./HandInButton";
import { OneSwing, oneSwingOf } from "./OneSwing";
import { SwingWords, wordsOf } from "./SwingWords";
import { useHandIn } from "./useHandIn";

interface SendFormProps {
  token: string;
  hand: Hand;
  done: () => void;
  first?: File; // a clip that is there already
}

/** Clips and words for a request link, and the button that hands them in. */
export function SendForm({ token, hand, done, first }: SendFormProps) {
  const uploads = useClipUploads(`/api/sent/${token}/uploads`);
  const { add } = uploads;
  const given = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is given once
  useEffect(() => {
    if (first && !given.current) add([first]);
    given.current = true;
  }, [first]);
  const kept = useKeptForm(`sent.${token}`);
  const state = useHandIn(uploads, null, done, kept);
  return (
    <form
      key={kept.round}
      {...kept.form}
      onSubmit={(event) => {
        event.preventDefault();
        const form = event.currentTarget;
        const body = { ...wordsOf(form), drill: "", one_swing: oneSwingOf(form), clips: uploads.clips() };
        state.handIn(() => got(api.POST("/api/sent/{token}", { params: { path: { token } }, body })));
      }}
    >
      <ClipPicker uploads={uploads} />
      {uploads.bothViews && <OneSwing />}
      <KeptNote kept={kept} />
      <SwingWords own hand={hand} />
      <HandInButton state={state} label="Send" close={done} />
    </form>
  );
}
