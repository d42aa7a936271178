import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

const isWaiting = ({ pairs, keys, forms, meeting }: Schemas['Advice']): boolean =>
  pairs.isWaiting || keys.isWaiting || forms.isWaiting || meeting?.isWaiting === true

/** Which columns may pair and which tell rows apart: from samples at once, asked again until a worker has looked at all rows. */
export function useAdvice(course: () => Schemas['Course'], draft: () => Schemas['PlanDraft'] | null, isSaving: () => boolean) {
  return useQuery({
    queryKey: [
      'dataset',
      () => course().id,
      'advice',
      () => course().source?.id,
      () => course().target?.id,
      () => JSON.stringify([draft()?.key, draft()?.columnPairs.map(({ source, target, kind }) => [source, target, kind]), draft()?.sides]),
    ],
    queryFn: () => answer(api.GET('/datasets/{dataset}/advice', { params: { path: { dataset: course().id } } })),
    // The server advises on the draft as it is kept: while a change is under way there is nothing new to ask.
    enabled: () => course().source !== null && course().target !== null && draft() !== null && !isSaving(),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data !== undefined && isWaiting(state.data) ? SECOND / 2 : false),
  })
}
