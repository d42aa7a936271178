import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** Which columns may pair and which tell rows apart: from samples at once, asked again until a worker has looked at all rows. */
export function useAdvice(course: () => Schemas['Course'], draft: () => Schemas['PlanDraft'] | null, isSaving: () => boolean) {
  return useQuery({
    queryKey: [
      'dataset',
      () => course().id,
      'advice',
      () => course().source?.id,
      () => course().target?.id,
      () => [draft()?.key.map(({ source, target }) => [source, target]), draft()?.columnPairs.map(({ source, target, kind }) => [source, target, kind])],
      () => JSON.stringify([draft()?.sides?.source?.preparation, draft()?.sides?.target?.preparation]),
    ],
    queryFn: () => answer(api.GET('/datasets/{dataset}/advice', { params: { path: { dataset: course().id } } })),
    // The server advises on the draft as it is kept: while a change is under way there is nothing new to ask.
    enabled: () => course().source !== null && course().target !== null && draft() !== null && !isSaving(),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data !== undefined && (state.data.pairs.isWaiting || state.data.keys.isWaiting) ? SECOND / 2 : false),
  })
}
