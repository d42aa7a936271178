import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { type Ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** The defects of a dataset that have some words, with their state by the data, and the corrections that were made of them. */
export function useDefects(dataset: () => number, words: Ref<string>) {
  const queries = useQueryClient()
  const path = () => ({ dataset: dataset() })
  const defects = useInfiniteQuery({
    queryKey: ['dataset', dataset, 'defects', words],
    queryFn: ({ pageParam, signal }) =>
      answer(api.GET('/datasets/{dataset}/defects', { params: { path: path(), query: { words: words.value, from: pageParam } }, signal })),
    initialPageParam: 1,
    getNextPageParam: ({ next }) => next,
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.pages[0]?.isWaiting === true ? SECOND : false),
  })
  const sets = useQuery({
    queryKey: ['dataset', dataset, 'corrections'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/corrections', { params: { path: path() }, signal })),
  })
  const assign = useMutation({
    mutationFn: ({ act, ...entry }: Schemas['DefectEntry'] & { act: number }) =>
      answer(api.PUT('/rulings/{ruling}/defect', { params: { path: { ruling: act } }, body: entry })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset', dataset(), 'defects'] }),
  })
  const correct = useMutation({
    /** Of these acts, or of all that have the words. */
    mutationFn: (acts: number[]) =>
      answer(api.POST('/datasets/{dataset}/corrections', { params: { path: path() }, body: acts.length === 0 ? { words: words.value } : { acts } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset', dataset(), 'corrections'] }),
  })
  return { defects, sets, assign, correct }
}
