import { useQuery } from '@tanstack/vue-query'
import { type MaybeRefOrGetter, toValue } from 'vue'
import { answer, api } from '@/api/client'

const SECOND = 1000

/** The state of a dataset as the rail shows it; while a run goes on it is asked for every second. */
export function useCourse(dataset: MaybeRefOrGetter<number>) {
  return useQuery({
    queryKey: ['dataset', dataset, 'course'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}', { params: { path: { dataset: toValue(dataset) } }, signal })),
    refetchInterval: ({ state }) => (state.data?.run != null && !state.data.run.isOver ? SECOND : false),
  })
}
