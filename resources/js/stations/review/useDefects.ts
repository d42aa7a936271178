import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** The defects of a dataset with their state by the data, and the corrections that were made of them. */
export function useDefects(dataset: () => number) {
  const queries = useQueryClient()
  const path = () => ({ dataset: dataset() })
  const defects = useQuery({
    queryKey: ['dataset', dataset, 'defects'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/defects', { params: { path: path() }, signal })),
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND : false),
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
    mutationFn: (acts: number[]) => answer(api.POST('/datasets/{dataset}/corrections', { params: { path: path() }, body: { acts } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['dataset', dataset(), 'corrections'] }),
  })
  return { defects, sets, assign, correct }
}
