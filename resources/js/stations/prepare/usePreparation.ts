import { useMutation, useQuery, useQueryClient, keepPreviousData } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/useDraft'

const SECOND = 1000

/** What the steps of one side do, tried on a sample whenever they change. */
export function useTrial(course: () => Schemas['Course'], side: Side, draft: () => Schemas['PlanDraft'] | null, chosen: () => string | null) {
  const steps = () => draft()?.sides?.[side]?.preparation ?? []
  const reads = () => ({ ...draft()?.sides?.[side], preparation: undefined, repeats: undefined })
  const references = () => draft()?.references ?? {}
  return useQuery({
    queryKey: [
      'dataset',
      () => course().id,
      'trial',
      side,
      () => course()[side]?.id,
      () => JSON.stringify(steps()),
      () => JSON.stringify([reads(), references()]),
      chosen,
    ],
    queryFn: () =>
      answer(
        api.POST('/datasets/{dataset}/preparation-trials', {
          params: { path: { dataset: course().id } },
          body: { side, preparation: steps(), reads: reads(), references: references(), chosen: chosen() },
        }),
      ),
    enabled: () => course()[side] !== null,
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** Runs the steps of a side on every row, and looks until it is done. */
export function useWholeRun(course: () => Schemas['Course'], side: Side) {
  const queries = useQueryClient()
  const again = () => queries.invalidateQueries({ queryKey: ['dataset', course().id, 'trial', side] })
  return useMutation({
    mutationFn: async () => {
      await answer(api.POST('/datasets/{dataset}/prepared-sides', { params: { path: { dataset: course().id } }, body: { side } }))
      for (let looked = 0; looked < 600; looked++) {
        await new Promise((resolve) => setTimeout(resolve, SECOND))
        await again()
        const found = queries.getQueriesData<Schemas['PreparationTrial']>({ queryKey: ['dataset', course().id, 'trial', side], type: 'active' })
        if (found.some(([, trial]) => trial?.isWhole === true)) return
      }
    },
  })
}
