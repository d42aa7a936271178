import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { type Ref, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

/** What a ruling is about: one finding, a whole pattern or class, chosen findings, or a filter as it stands. */
export type Target = { scope: 'row' | 'cell' | 'pattern' | 'class'; target: string } | { scope: 'selection' | 'filter'; filter: Schemas['Filter'] }

/** What is said with a ruling. */
export interface Why {
  reason: string
  ticket: string
  askedId: number | null
}

/** For which findings of tallies to come the ruling on a pattern holds too. */
export type Holds = { holdsUpTo?: number; holdsFor?: { source: string; target: string }[] }

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
      queries.invalidateQueries({ queryKey: ['for-me'] }),
    ])

  const rule = useMutation({
    mutationFn: (act: Target & Why & Holds & { decision: Schemas['Decision'] }) =>
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
