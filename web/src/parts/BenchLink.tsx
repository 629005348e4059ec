import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { catalogueQuery, swingQuery } from "../api/queries";

/** A way to a swing on the bench; a pointer that comes near, or the key's focus, has it fetched already. */
export function BenchLink(props: {
  id: string;
  search?: string;
  className: string;
  label?: string; // where its picture says nothing
  children: ReactNode;
}) {
  const { id, search = "", className, label, children } = props;
  const queries = useQueryClient();
  const fetch = () => {
    void queries.prefetchQuery(catalogueQuery);
    void queries.prefetchQuery(swingQuery(id));
  };
  return (
    <Link
      className={className}
      aria-label={label}
      to={`/bench/${id}${search}`}
      onPointerEnter={fetch}
      onFocus={fetch}
    >
      {children}
    </Link>
  );
}
