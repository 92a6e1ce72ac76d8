import { QueryClient, type InvalidateOptions, type InvalidateQueryFilters, type QueryKey } from '@tanstack/react-query';

/**
 * Asks a view's question again when what it is about has changed, also while its first answer is still on its way. That
 * answer may have left the server before the change, and would otherwise stand as current: a score that is entered just
 * before its ledger is opened would be missing there.
 */
export class FreshQueries extends QueryClient {
  override async invalidateQueries<Key extends QueryKey = QueryKey>(
    filters?: InvalidateQueryFilters<Key>,
    options?: InvalidateOptions,
  ): Promise<void> {
    const first = this.getQueryCache()
      .findAll(filters)
      .filter((query) => query.state.fetchStatus === 'fetching' && query.state.data === undefined);
    await Promise.all([
      super.invalidateQueries(filters, options),
      ...first.map(async (query) => {
        // Joins the question that is under way. Why it failed is its view's to say.
        await query.fetch().catch(() => undefined);
        await super.invalidateQueries(
          { predicate: (one) => one === query, refetchType: filters?.refetchType ?? filters?.type ?? 'active' },
          options,
        );
      }),
    ]);
  }
}
