import { useState } from "react";
import { Sheet } from "../parts/Sheet";
import { Trouble } from "../parts/Trouble";
import { KindFields, kindOf } from "../send/KindFields";
import { kindWords } from "../words";
import { useBench } from "./benchContext";
import type { Side } from "./benchState";
import { useSayKind } from "./useSayKind";

/** What the swing was made with and how long it was meant to be; a click says it anew. */
export function SwingKind({ side }: { side: Side }) {
  const swing = useBench((state) => state.sides[side]?.swing);
  const [open, setOpen] = useState(false);
  if (!swing) return null;
  return (
    <>
      <button
        type="button"
        className="min-h-6 min-w-0 shrink-[3] cursor-pointer truncate text-sm font-normal underline decoration-dotted underline-offset-4"
        title="Club and length of this swing: change what was said"
        onClick={() => setOpen(true)}
      >
        {kindWords(swing)}
        {swing.parts > 1 && ` · swing ${swing.part} of ${swing.parts}`}
      </button>
      {open && <KindSheet side={side} swing={swing} close={() => setOpen(false)} />}
    </>
  );
}

function KindSheet(props: { side: Side; swing: Parameters<typeof kindWords>[0]; close: () => void }) {
  const { side, swing, close } = props;
  const say = useSayKind(side);
  return (
    <Sheet title="This swing" close={close}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          say.mutate(kindOf(event.currentTarget), { onSuccess: close });
        }}
      >
        <KindFields kind={swing} />
        {say.error && <Trouble error={say.error} />}
        <button type="submit" className="btn btn-primary w-full" disabled={say.isPending}>
          Save
        </button>
      </form>
    </Sheet>
  );
}
