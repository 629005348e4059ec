import { type List, PAGE_ROWS } from "./useList";

/** Which rows of how many are shown, and the way to the others. */
export function ListFoot({ list, count }: { list: List; count: number }) {
  const { page, turnTo } = list;
  if (count <= PAGE_ROWS && page === 0) return null;
  const first = page * PAGE_ROWS + 1;
  const last = Math.min(first + PAGE_ROWS - 1, count);
  return (
    <nav aria-label="Pages" className="mt-4 flex items-center gap-3 text-sm">
      <button type="button" className="btn btn-sm" disabled={page === 0} onClick={() => turnTo(page - 1)}>
        Before
      </button>
      <span className="num" role="status">
        {first > count ? `none of ${count}` : `${first} to ${last} of ${count}`}
      </span>
      <button type="button" className="btn btn-sm" disabled={last >= count} onClick={() => turnTo(page + 1)}>
        After
      </button>
    </nav>
  );
}
