import { SheetBody } from "./SheetBody";
import { SheetWalk } from "./SheetWalk";

/** A lesson sheet with its walk, on the student's page or beside the desk. */
export function SheetView(
  props: Omit<Parameters<typeof SheetBody>[0], "walk" | "linked"> & {
    walk: string; // the address of its walk
    offline?: boolean; // on a student's own page: kept for when there is no connection
  },
) {
  const { walk, offline = false, ...rest } = props;
  const { sheet } = rest;
  return (
    <SheetBody
      {...rest}
      linked={offline}
      walk={
        sheet.walk && (
          <SheetWalk walk={sheet.walk} base={walk} units={sheet.units} hand={sheet.hand} offline={offline} />
        )
      }
    />
  );
}
