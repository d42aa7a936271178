import { useQuery } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { answer, api } from '@/api/client'

/** A tally with its patterns and their standings; 0 where there is none yet. */
export function useTally(id: Ref<number>) {
  return useQuery({
    queryKey: ['tally', id, 'summary'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}', { params: { path: { tally: id.value } }, signal })),
    enabled: () => id.value > 0,
  })
}
