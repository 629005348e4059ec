import type { Book as WholeBook } from "../../api/queries";
import type { Judgement } from "./verdict";

type Book = Pick<WholeBook, "disputes" | "models">;
type Verdict = "fault" | "open" | "none" | "unseen" | "not asked";

export interface Differing {
  fault: string;
  name: string;
  one: Verdict;
  other: Verdict;
}

export interface Agreement {
  same: number;
  all: number;
  differing: Differing[];
}

/** In what two judgements of one swing agree: of the faults that either of them finds, and where they do not. */
export function agreement(one: Judgement, other: Judgement): Agreement {
  const [ones, others] = [saidBy(one), saidBy(other)];
  const names = new Map([...one.findings, ...other.findings].map(({ fault, name }) => [fault, name]));
  const found = [...names.keys()].filter(
    (fault) => ones.get(fault) === "fault" || others.get(fault) === "fault",
  );
  const differing = found.flatMap((fault) => {
    const [a, b] = [ones.get(fault) ?? "not asked", others.get(fault) ?? "not asked"];
    return a === b ? [] : [{ fault, name: names.get(fault) ?? fault, one: a, other: b }];
  });
  return { same: found.length - differing.length, all: found.length, differing };
}

function saidBy({ findings }: Judgement): Map<string, Verdict> {
  return new Map(
    findings.map(({ fault, verdict }) => [
      fault,
      verdict === "shown" || verdict === "likely"
        ? "fault"
        : verdict === "open"
          ? "open"
          : verdict === "cannot_be_seen"
            ? "unseen"
            : "none",
    ]),
  );
}

export interface OtherOption {
  dispute: string;
  question: string;
  one: string;
  other: string;
}

/** The disputes in which two models take different sides. */
export function otherOptions(book: Book, one: string, other: string): OtherOption[] {
  const [a, b] = [one, other].map((id) => book.models.find((model) => model.id === id)?.chosen ?? {});
  return book.disputes.flatMap(({ id, name, question, options }) => {
    const [first, second] = [a?.[id], b?.[id]];
    if (first === second) return [];
    const named = (option: string | undefined) =>
      options.find((each) => each.id === option)?.name ?? "no side";
    return [{ dispute: name, question, one: named(first), other: named(second) }];
  });
}
