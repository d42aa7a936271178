import { useMutation, useQuery, useQueryClient, keepPreviousData } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { askedOf, isSide, type Prepared } from '@/composables/triedSteps'

const SECOND = 1000

/** What the steps of a side or a reference do, tried on a sample whenever they change. */
export function useTrial(
  course: () => Schemas['Course'],
  prepared: () => Prepared | null,
  draft: () => Schemas['PlanDraft'] | null,
  chosen: () => string | null,
) {
  const asked = () => askedOf(draft(), prepared() ?? 'source', chosen())
  const delivered = () => {
    const of = prepared()
    return of === null || !isSide(of) ? of : course()[of]?.id
  }
  return useQuery({
    queryKey: ['dataset', () => course().id, 'trial', prepared, delivered, () => JSON.stringify(asked())],
    queryFn: () =>
      answer(
        api.POST('/datasets/{dataset}/preparation-trials', {
          params: { path: { dataset: course().id } },
          body: asked(),
        }),
      ),
    // Before the draft is there nobody knows which steps are meant.
    enabled: () => draft() !== null && delivered() !== null && delivered() !== undefined,
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
