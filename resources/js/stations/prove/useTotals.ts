import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api } from '@/api/client'

/** The control totals of a tally, those that differ first. They never change. */
export function useTotals(tally: () => number) {
  return useQuery({
    queryKey: ['tally', tally, 'totals'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/totals', { params: { path: { tally: tally() } }, signal })),
    enabled: () => tally() > 0,
  })
}

/** A page of the groups of one of them. */
export function useGroups(tally: () => number, number: () => number, from: () => number) {
  return useQuery({
    queryKey: ['tally', tally, 'totals', number, 'groups', from],
    queryFn: ({ signal }) =>
      answer(api.GET('/tallies/{tally}/totals/{number}/groups', { params: { path: { tally: tally(), number: number() }, query: { from: from() } }, signal })),
    placeholderData: keepPreviousData,
  })
}
