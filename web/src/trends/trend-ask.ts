import type { Schemas } from '../api/client.ts';
import type { TrendsSearch } from '../shell/search-params.ts';

/** What the server is asked for, from what the address says. */
export function askOf(search: TrendsSearch) {
  return {
    model: search.model!,
    ...(search.unit !== undefined && { unit: search.unit }),
    ...(search.between !== undefined && { between: search.between }),
    ...(search.along !== undefined && { along: search.along }),
    ...(search.from !== undefined && { from: search.from }),
    ...(search.purpose !== undefined && { purpose: search.purpose }),
    ...(search.group !== undefined && { group: search.group }),
    ...(search.suite !== undefined && { suite: search.suite }),
    ...(search.matters !== undefined && { matters: search.matters }),
    ...(search.without !== undefined && { without: search.without }),
  };
}

/** What of it a write-up asks as well, beside whose trend it is and along what. */
export function byOf(search: TrendsSearch): Schemas['TrendBy'] {
  const { from, purpose, group, suite, matters, without } = search;
  return {
    ...(from !== undefined && { from }),
    ...(purpose !== undefined && { purpose }),
    ...(group !== undefined && { group }),
    ...(suite !== undefined && { suite }),
    ...(matters !== undefined && { matters }),
    ...(without !== undefined && { without }),
  };
}
