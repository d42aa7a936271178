import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

/** How far the signing of a tally is; asked again now and then, for others sign meanwhile. */
const WHILE_OTHERS_SIGN = 15_000

export function useSignOff(tally: () => number) {
  const queries = useQueryClient()
  const key = ['tally', tally, 'sign-off']
  const path = () => ({ params: { path: { tally: tally() } } })
  const signOff = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/sign-off', { ...path(), signal })),
    enabled: () => tally() > 0,
    refetchInterval: WHILE_OTHERS_SIGN,
  })
  const took = async (after: Schemas['SignOff']): Promise<void> => {
    queries.setQueryData(['tally', tally(), 'sign-off'], after)
    await Promise.all([queries.invalidateQueries({ queryKey: ['for-me'] }), queries.invalidateQueries({ queryKey: ['dataset'] })])
  }
  const end = useMutation({
    mutationFn: (body: { act: 'returned' | 'withdrawn'; reason: string }) => answer(api.POST('/tallies/{tally}/sign-off/ends', { ...path(), body })),
    onSuccess: took,
  })
  const waive = useMutation({
    mutationFn: (body: { limit: string; reason: string; endsOn?: string | null; ticket?: string | null; isLifted?: boolean }) =>
      answer(api.POST('/tallies/{tally}/waivers', { ...path(), body })),
    onSuccess: took,
  })
  const say = useMutation({
    mutationFn: (body: { place: 'opening' | 'closing'; text: string }) => answer(api.PUT('/tallies/{tally}/report-texts', { ...path(), body })),
    onSuccess: took,
  })
  return { signOff, end, waive, say, lookAgain: () => queries.invalidateQueries({ queryKey: ['tally', tally(), 'sign-off'] }) }
}

/** What limits can be set on in a dataset, and which are set: in the draft of its plan, so that they count from the next tally on. */
export function useLimits(dataset: () => number) {
  const queries = useQueryClient()
  const limits = useQuery({
    queryKey: ['dataset', dataset, 'limits'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/limits', { params: { path: { dataset: dataset() } }, signal })),
  })
  const save = useMutation({
    mutationFn: (all: readonly Schemas['Limit'][]) =>
      answer(
        api.PUT('/datasets/{dataset}/limits', {
          params: { path: { dataset: dataset() } },
          body: { limits: [...all], draft: limits.data.value?.draft ?? 0 },
        }),
      ),
    onSuccess: (after) => {
      queries.setQueryData(['dataset', dataset(), 'limits'], after)
      return queries.invalidateQueries({ queryKey: ['dataset', dataset(), 'plan'] })
    },
  })
  return { limits, save }
}
