import { useEffect, useRef } from "react";
import { api, got } from "../api/client";
import { Trouble } from "../parts/Trouble";
import { ClipPicker } from "../send/ClipPicker";
import { useClipUploads } from "../send/clipUploads";
import { HandInButton } from "../send/HandInButton";
import { useHandIn } from "../send/useHandIn";
import { useSendingLink } from "../send/useSendingLink";
import { SHELF } from "../send/whom";
import type { View } from "../words";

interface Checked {
  token: string;
  drill: string;
  view: View;
  done: () => void;
  first?: File; // a clip that is there already
}

/** One clip of a drill, handed in to be checked. */
export function CheckForm(props: Checked) {
  const link = useSendingLink(props.token);
  if (link.error && !link.data) return <Trouble error={link.error} retry={link.refetch} />;
  return link.data ? <Form key={link.data.token} {...props} sending={link.data.token} /> : null;
}

const NOTHING_SAID = {
  club: "",
  words: "",
  usual_miss: "",
  what_hurts: "",
  misses: [],
  hurts: [],
  camera_place: "",
};

function Form({ sending, drill, view, done, first }: Checked & { sending: string }) {
  const uploads = useClipUploads(`/api/sent/${sending}/uploads`, SHELF, view);
  const { add } = uploads;
  const given = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is given once
  useEffect(() => {
    if (first && !given.current) add([first]);
    given.current = true;
  }, [first]);
  const state = useHandIn(uploads, "tries", done);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        const body = { ...NOTHING_SAID, drill, clips: uploads.clips() };
        state.handIn(() =>
          got(api.POST("/api/sent/{token}", { params: { path: { token: sending } }, body })),
        );
      }}
    >
      <ClipPicker
        uploads={uploads}
        hint="One clip of one try, with a club: stand still, swing, hold the finish."
      />
      <HandInButton state={state} label="Have it checked" close={done} />
    </form>
  );
}
