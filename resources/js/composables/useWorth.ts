import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

/** What the differences of the filter's cells come to, by column; while others are looked at, those of before. */
export function useWorth(tally: Ref<number>, filter: Ref<Omit<Schemas['Filter'], 'sequences'>>) {
  const found = useQuery({
    queryKey: ['tally', tally, 'findings', filter, 'worth'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/findings/worth', { params: { path: { tally: tally.value }, query: filter.value }, signal })),
  })
  return { worth: computed(() => found.data.value?.items ?? []), error: found.error }
}
