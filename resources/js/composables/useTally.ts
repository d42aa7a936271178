import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api } from '@/api/client'

/** A tally with its patterns and their standings. */
export const tallyOf = (id: number) => ({
  queryKey: ['tally', id, 'summary'],
  queryFn: ({ signal }: { signal: AbortSignal }) => answer(api.GET('/tallies/{tally}', { params: { path: { tally: id } }, signal })),
})

/** The same for a screen; 0 where there is none yet. */
export function useTally(id: Ref<number>) {
  return useQuery(computed(() => ({ ...tallyOf(id.value), enabled: id.value > 0 })))
}
