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
