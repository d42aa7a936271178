import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** How well the key tells rows apart: a sample at once, and asked again until both deliveries have been counted whole. */
export function useKeyCounts(course: () => Schemas['Course'], key: () => readonly Schemas['KeyColumn'][]) {
  return useQuery({
    queryKey: ['dataset', () => course().id, 'key', key, () => course().source?.id, () => course().target?.id],
    queryFn: () => answer(api.POST('/datasets/{dataset}/key-counts', { params: { path: { dataset: course().id } }, body: { key: [...key()] } })),
    enabled: () => key().length > 0,
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data !== undefined && !(state.data.source.isWhole && state.data.target.isWhole) ? SECOND : false),
  })
}
