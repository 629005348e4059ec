import { useState } from "react";
import type { Schemas } from "../api/client";
import { CheckForm } from "../check/CheckForm";
import { Trouble } from "../parts/Trouble";
import { SendForm } from "../send/SendForm";
import { useSendingLink } from "../send/useSendingLink";
import type { Hand } from "../words";

/** One swing of the mirror on its way to the instructor, or to be checked; until it has gone it is on the phone alone. */
export function SendClip(props: {
  token: string;
  clip: File;
  hand: Hand;
  checked: Schemas["DrillSent"] | undefined; // as a try at this drill
  sent: () => void;
  back: () => void;
}) {
  const { token, clip, hand, checked, back } = props;
  const [gone, setGone] = useState(false);
  const link = useSendingLink(token);
  const done = () => {
    setGone(true);
    props.sent();
  };
  const title = checked ? `${checked.name}: have this one checked` : "Send this swing";
  return (
    <main className="mx-auto max-w-lg p-4">
      <h1 className="text-2xl font-bold">{gone ? "Your swing is on its way" : title}</h1>
      {link.error && <Trouble error={link.error} retry={link.refetch} />}
      {link.data && !gone && !checked && (
        <SendForm token={link.data.token} hand={hand} done={done} first={clip} />
      )}
      {checked && !gone && (
        <CheckForm
          token={token}
          drill={checked.id}
          view={checked.view ?? "face_on"}
          done={done}
          first={clip}
        />
      )}
      {gone && checked && (
        <a
          className="btn btn-primary mt-4 w-full"
          href={`/p/${token}/check/${encodeURIComponent(checked.id)}`}
        >
          See what the machine says
        </a>
      )}
      <button type="button" className="btn mt-4 w-full" onClick={back}>
        {gone ? "Back to the mirror" : "Not now"}
      </button>
    </main>
  );
}
