import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { bookQuery, meQuery } from "../api/queries";
import { chosenNow } from "../parts/address";
import { Trouble } from "../parts/Trouble";
import { BookPage } from "./BookPage";
import { ModelEditor } from "./ModelEditor";
import { usePages } from "./useBook";

/** The teaching models: what each takes sides for, and one's own, dispute by dispute. */
export function Models() {
  const book = useQuery(bookQuery);
  const units = useQuery(meQuery).data?.units ?? "cm";
  const [said, say] = useSearchParams();
  const models = book.data?.models ?? [];
  const model = models.find(({ id }) => id === said.get("model")) ?? models[0];
  const beside = models.find(({ id }) => id === said.get("beside"));
  const want = (name: string, value: string) =>
    say(
      () => {
        const next = chosenNow();
        if (value) next.set(name, value);
        else next.delete(name);
        return next;
      },
      { replace: name === "beside" },
    );
  return (
    <BookPage title="Teaching models" actions={<Import />}>
      {book.error && !book.data && <Trouble error={book.error} retry={book.refetch} />}
      {book.data && model && (
        <>
          <div className="mb-3 flex flex-wrap gap-2">
            <select
              className="select select-sm w-auto"
              aria-label="Model"
              value={model.id}
              onChange={(event) => want("model", event.target.value)}
            >
              {models.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                  {book.data.own.includes(`model ${id}`) ? " (your own)" : ""}
                </option>
              ))}
            </select>
            <select
              className="select select-sm w-auto"
              aria-label="Beside which model"
              value={beside?.id ?? ""}
              onChange={(event) => want("beside", event.target.value)}
            >
              <option value="">Nothing beside</option>
              {models
                .filter(({ id }) => id !== model.id)
                .map(({ id, name }) => (
                  <option key={id} value={id}>
                    beside {name}
                  </option>
                ))}
            </select>
          </div>
          <ModelEditor
            key={model.id}
            model={model}
            beside={beside}
            book={book.data}
            units={units}
            saved={(id) => want("model", id)}
          />
        </>
      )}
    </BookPage>
  );
}

/** Takes in a page that another instructor saved as a file. */
function Import() {
  const { write } = usePages();
  const [taken, setTaken] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    setTaken("");
    const text = await file.text().catch(() => null);
    if (text === null) return setTaken("The file cannot be read any more: choose it again.");
    const page = await write.mutateAsync({ text }).catch(() => null);
    if (page) setTaken(`“${String(page.document.name ?? page.piece)}” is in your book.`);
  };
  return (
    <div className="flex items-center gap-2 text-sm">
      <span role="status">{write.error ? write.error.message : taken}</span>
      <label className="btn btn-sm focus-within:outline-2">
        Take in a file
        <input
          type="file"
          accept=".toml"
          className="sr-only"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
    </div>
  );
}
