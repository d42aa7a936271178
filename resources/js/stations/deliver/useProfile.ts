import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** What the columns of both sides hold; asked again while a worker still looks at them. */
export function useProfile(course: () => Schemas['Course']) {
  return useQuery({
    queryKey: ['dataset', () => course().id, 'profile', () => course().source?.id, () => course().target?.id],
    queryFn: () => answer(api.GET('/datasets/{dataset}/profile', { params: { path: { dataset: course().id } } })),
    enabled: () => course().source !== null || course().target !== null,
    refetchInterval: ({ state }) => (state.data?.isReading === true ? SECOND : false),
  })
}
