import { QueryClient, type QueryClientConfig } from '@tanstack/react-query';

/**
 * What the page knows of the library. An answer on its way that was asked for before a write may
 * lack what was written, so it is given up and asked for anew. Without this a first answer counts
 * as fresh when it comes, and what was just begun is not shown.
 */
export function libraryClient(config?: QueryClientConfig): QueryClient {
  const client = new QueryClient(config);
  const invalidate = client.invalidateQueries.bind(client);
  const set = client.setQueryData.bind(client);
  client.invalidateQueries = (filters, options) => {
    if (filters?.refetchType !== 'none')
      for (const query of client.getQueryCache().findAll(filters as object))
        // one that holds data already is given up by the package itself
        if (
          query.state.data === undefined &&
          query.state.fetchStatus === 'fetching' &&
          query.isActive()
        )
          void query.cancel({ silent: true });
    return invalidate(filters, options);
  };
  client.setQueryData = ((...args: Parameters<typeof set>) => {
    const asked = client.getQueryState(args[0])?.fetchStatus === 'fetching';
    const data = set(...args);
    if (asked) void client.invalidateQueries({ queryKey: args[0], exact: true });
    return data;
  }) as typeof set;
  return client;
}
