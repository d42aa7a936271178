import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** Values of the source that the target will not take; asked again while a worker counts, and after each change of a demand. */
export function useMisfits(course: () => Schemas['Course'], demands: () => unknown) {
  return useQuery({
    queryKey: ['dataset', () => course().id, 'misfits', () => course().source?.id, demands],
    queryFn: () => answer(api.GET('/datasets/{dataset}/misfits', { params: { path: { dataset: course().id } } })),
    enabled: () => course().source !== null && course().target !== null,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND / 2 : false),
  })
}
