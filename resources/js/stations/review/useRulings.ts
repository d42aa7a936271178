import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { type Ref, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

export interface Target {
  scope: 'row' | 'cell' | 'pattern' | 'class'
  target: string
}

/** The acts of ruling on a tally: adding one, undoing one, and the last one that this person did. */
export function useRulings(tally: Ref<number>) {
  const queries = useQueryClient()
  const last = ref<Schemas['Ruling'] | null>(null)
  const acts = useQuery({
    queryKey: ['tally', tally, 'rulings'],
    queryFn: () => answer(api.GET('/tallies/{tally}/rulings', { params: { path: { tally: tally.value } } })),
  })
  const refresh = () =>
    Promise.all([
      queries.invalidateQueries({ queryKey: ['tally', tally.value] }),
      queries.invalidateQueries({ queryKey: ['dataset'] }),
      queries.invalidateQueries({ queryKey: ['migration'] }),
    ])

  const rule = useMutation({
    mutationFn: (act: Target & { decision: Schemas['Decision']; reason: string }) =>
      answer(
        api.POST('/tallies/{tally}/rulings', {
          params: { path: { tally: tally.value } },
          body: { ...act, seenAct: Math.max(acts.data.value?.latest ?? 0, last.value?.id ?? 0) },
        }),
      ),
    onSuccess: (act) => {
      last.value = act
      return refresh()
    },
    // Somebody may have ruled meanwhile: what they did must be seen before the next try.
    onError: refresh,
  })
  const undo = useMutation({
    mutationFn: (id: number) => answer(api.POST('/rulings/{ruling}/undo', { params: { path: { ruling: id } } })),
    onSuccess: () => {
      last.value = null
      return refresh()
    },
  })
  return { acts, rule, undo, last }
}
