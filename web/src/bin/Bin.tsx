import { useQuery } from "@tanstack/react-query";
import { Download, Undo2 } from "lucide-react";
import { useState } from "react";
import { binQuery, roomQuery } from "../api/queries";
import { Empty, Page } from "../parts/Page";
import { Trouble } from "../parts/Trouble";
import { when } from "../parts/when";
import { type Binned, useBin } from "./useBin";

const DAY_MS = 86_400_000;
const GB = 1024 ** 3;

/** What was removed and can be taken back, and files that were refused. */
export function Bin() {
  const bin = useQuery(binQuery);
  const room = useQuery(roomQuery);
  return (
    <Page title="Bin">
      {bin.error && !bin.data && <Trouble error={bin.error} retry={bin.refetch} />}
      {bin.data?.length === 0 && (
        <Empty>The bin is empty. What you remove lies here for 30 days before it is erased.</Empty>
      )}
      <ul className="grid gap-2">
        {bin.data?.map((each) => (
          <BinnedLine key={each.id} binned={each} />
        ))}
      </ul>
      {room.data && (
        <p className="mt-5 text-sm">
          Your clips take up <span className="num">{(room.data.bytes / GB).toFixed(2)}</span> of{" "}
          <span className="num">{(room.data.most_bytes / GB).toFixed(0)}</span> GB, what lies in the bin
          included.
        </p>
      )}
    </Page>
  );
}

function BinnedLine({ binned }: { binned: Binned }) {
  const [sure, setSure] = useState(false);
  const { takeBack, erase } = useBin();
  const { kind, id, title, about, removed_at, goes_at } = binned;
  const days = Math.max(0, Math.ceil((Date.parse(goes_at) - Date.now()) / DAY_MS));
  const error = takeBack.error ?? erase.error;
  return (
    <li className="plate flex flex-wrap items-center gap-3 p-3">
      <div className="min-w-0 flex-1">
        <h2 className="font-semibold">{title}</h2>
        <p className="text-sm">{about}</p>
        <p className="text-xs opacity-85">
          {kind === "file" ? "Refused" : "Removed"} {when(removed_at)}; erased in{" "}
          <span className="num">{days}</span> {days === 1 ? "day" : "days"}
        </p>
        {error && <Trouble error={error} />}
      </div>
      {kind === "file" && !sure && (
        <a className="btn btn-sm" href={`/api/bin/file/${id}/content`} download={title}>
          <Download size={14} aria-hidden /> Fetch the file<span className="sr-only">: {title}</span>
        </a>
      )}
      {kind !== "file" && !sure && (
        <button type="button" className="btn btn-sm" onClick={() => takeBack.mutate({ kind, id })}>
          <Undo2 size={14} aria-hidden /> Take back<span className="sr-only"> {title}</span>
        </button>
      )}
      {sure ? (
        <span className="flex items-center gap-2 text-sm">
          Nobody can bring it back.
          <button
            type="button"
            className="btn btn-sm"
            disabled={erase.isPending}
            onClick={() => erase.mutate({ kind, id })}
          >
            Erase for good
          </button>
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => setSure(false)}>
            Keep
          </button>
        </span>
      ) : (
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setSure(true)}>
          Erase now<span className="sr-only">: {title}</span>
        </button>
      )}
    </li>
  );
}
