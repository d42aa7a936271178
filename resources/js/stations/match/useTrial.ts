import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** What the draft would find on some keys: asked after each change that is kept, and until the rows of these keys are drawn. */
export function useTrial(course: () => Schemas['Course'], draft: () => Schemas['PlanDraft'] | null, isSaving: () => boolean) {
  return useQuery({
    queryKey: ['dataset', () => course().id, 'plan-trial', () => course().source?.id, () => course().target?.id, () => JSON.stringify(draft())],
    queryFn: () => answer(api.GET('/datasets/{dataset}/trial', { params: { path: { dataset: course().id } } })),
    enabled: () => course().source !== null && course().target !== null && (draft()?.key.length ?? 0) > 0 && !isSaving(),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND : false),
  })
}
