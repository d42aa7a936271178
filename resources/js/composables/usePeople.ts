import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api } from '@/api/client'

/** Who works on a migration: people to ask and to mention. */
export function usePeople(migration: () => number) {
  const { data } = useQuery({
    queryKey: ['migration', migration, 'people'],
    queryFn: () => answer(api.GET('/migrations/{migration}/people', { params: { path: { migration: migration() } } })),
  })
  return computed(() => data.value?.items ?? [])
}
