import {
  type InvalidateOptions,
  type InvalidateQueryFilters,
  QueryClient,
  type QueryKey,
} from "@tanstack/react-query";

/** Asks anew after a change, also where the first answer is still on its way: it knows nothing of the change. */
export class Queries extends QueryClient {
  override async invalidateQueries<Key extends QueryKey = QueryKey>(
    filters?: InvalidateQueryFilters<Key>,
    options?: InvalidateOptions,
  ): Promise<void> {
    const first = this.getQueryCache()
      .findAll({ ...filters, type: "active", fetchStatus: "fetching" })
      .filter((query) => query.state.data === undefined);
    await Promise.all(first.map((query) => query.cancel({ revert: true, silent: true })));
    await super.invalidateQueries(filters, options);
  }
}
