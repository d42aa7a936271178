import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

export type KeptDelivery = Schemas['KeptContent']['items'][number]

/** Files of a purge are gone some seconds after the act. */
const WHILE_FILES_GO = 3_000

/** What a migration keeps, and what of it was purged. */
export function useContent(migration: number) {
  const queries = useQueryClient()
  const path = { params: { path: { migration } } }
  const key = ['migration', migration, 'content']
  const content = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => answer(api.GET('/migrations/{migration}/content', { ...path, signal })),
    refetchInterval: ({ state }) => (state.data?.items.some(({ purge }) => purge !== null && !purge.isOver) ? WHILE_FILES_GO : false),
  })
  const preview = (deliveries: readonly number[]) =>
    answer(api.POST('/migrations/{migration}/purge-previews', { ...path, body: { deliveries: [...deliveries] } }))
  const purge = useMutation({
    mutationFn: (body: { deliveries: number[]; reason: string; password: string; code: string | null }) =>
      answer(api.POST('/migrations/{migration}/purges', { ...path, body })),
    onSuccess: async (after) => {
      queries.setQueryData(key, after)
      await Promise.all([queries.invalidateQueries({ queryKey: ['tally'] }), queries.invalidateQueries({ queryKey: ['dataset'] })])
    },
  })
  return { content, preview, purge }
}
