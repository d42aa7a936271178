import { useMutation, useQuery, useQueryClient, keepPreviousData } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'

const SECOND = 1000

/** What is prepared: a side, or a reference by its name. */
export type Prepared = Side | { reference: string }
export const isSide = (prepared: Prepared): prepared is Side => typeof prepared === 'string'
export const isSame = (one: Prepared, other: Prepared): boolean => JSON.stringify(one) === JSON.stringify(other)

/** What a draft says about a side or a reference. */
export const rulesOf = (draft: Schemas['PlanDraft'] | null, prepared: Prepared): Schemas['ReferenceRules'] | Schemas['SideRules'] | undefined =>
  isSide(prepared) ? draft?.sides?.[prepared] : draft?.references?.[prepared.reference]

/** Steps of a draft as the server is asked about them: of a side or a reference, looked at from one of them. */
export function askedOf(draft: Schemas['PlanDraft'] | null, prepared: Prepared, chosen: string | null): Schemas['TriedSteps'] {
  const { preparation = [], ...rules }: Schemas['ReferenceRules'] | Schemas['SideRules'] = rulesOf(draft, prepared) ?? {}
  const reads: Schemas['Reading'] & { columns?: Record<string, Schemas['Reading']> } = { ...rules, ...{ repeats: undefined, key: undefined } }
  return { ...whose(prepared), preparation, reads, references: draft?.references ?? {}, chosen }
}

/** What the steps of a side or a reference do, tried on a sample whenever they change. */
export function useTrial(
  course: () => Schemas['Course'],
  prepared: () => Prepared | null,
  draft: () => Schemas['PlanDraft'] | null,
  chosen: () => string | null,
) {
  const rules = () => {
    const of = prepared()
    return of === null ? undefined : rulesOf(draft(), of)
  }
  const steps = () => rules()?.preparation ?? []
  const reads = () => ({ ...rules(), preparation: undefined, repeats: undefined, key: undefined })
  const references = () => draft()?.references ?? {}
  const delivered = () => {
    const of = prepared()
    return of === null || !isSide(of) ? of : course()[of]?.id
  }
  return useQuery({
    queryKey: [
      'dataset',
      () => course().id,
      'trial',
      prepared,
      delivered,
      () => JSON.stringify(steps()),
      () => JSON.stringify([reads(), references()]),
      chosen,
    ],
    queryFn: () =>
      answer(
        api.POST('/datasets/{dataset}/preparation-trials', {
          params: { path: { dataset: course().id } },
          body: askedOf(draft(), prepared() ?? 'source', chosen()),
        }),
      ),
    // Before the draft is there nobody knows which steps are meant.
    enabled: () => draft() !== null && delivered() !== null && delivered() !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  })
}

const whose = (prepared: Prepared): { side: Side } | { reference: string } => (isSide(prepared) ? { side: prepared } : prepared)

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
