import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '@/api/client'
import type { Filter } from '@/stations/review/filter'

/** What the group of a control total is called whose rows are looked at; nothing while it is not known. */
export function useGroupName(tally: () => number, filter: () => Filter) {
  const found = useQuery({
    queryKey: ['tally', tally, 'group', () => filter().total, () => filter().group],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/tallies/{tally}/totals/{number}/groups', {
          params: { path: { tally: tally(), number: filter().total ?? 0 }, query: { from: filter().group ?? 1 } },
          signal,
        }),
      ),
    enabled: () => filter().total !== undefined,
  })
  return computed(() => (filter().total === undefined ? undefined : found.data.value?.items[0]?.labels.map((label) => label || '(blank)').join(' · ')))
}
