import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const WHILE_WRITTEN = 700
const KEY = ['workbooks']

/** Asked for on this page: they are sent as soon as they are there. Others wait to be taken. */
const awaited = new Set<string>()

/** Asks for a workbook; how far it is shows in the tray. */
export function useAskForWorkbook(ask: () => Promise<Schemas['Workbook']>) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: ask,
    onSuccess: (workbook) => {
      awaited.add(workbook.id)
      return client.invalidateQueries({ queryKey: KEY })
    },
  })
}

export const fileOf = (workbook: Schemas['Workbook']): string => `/api/v1/workbooks/${workbook.id}/file`

function useList(isSignedIn: () => boolean = () => true) {
  return useQuery({
    queryKey: KEY,
    queryFn: () => answer(api.GET('/workbooks')),
    refetchInterval: ({ state }) => (state.data?.items.some((one) => one.state === 'asked') ? WHILE_WRITTEN : false),
    enabled: isSignedIn,
  })
}

/** Sends each workbook that was asked for on this page as soon as it is there, wherever one has gone meanwhile. */
export function useSendWorkbooks(isSignedIn: () => boolean, send: (workbook: Schemas['Workbook']) => void) {
  const list = useList(isSignedIn)
  watch(
    () => list.data.value?.items ?? [],
    (all) => {
      for (const workbook of all) {
        if (workbook.state === 'written' && awaited.delete(workbook.id)) send(workbook)
      }
    },
  )
}

/** The workbooks that this person asked for in a dataset and has not put away. */
export function useWorkbooks(dataset: () => number) {
  const client = useQueryClient()
  const list = useList()
  const putAway = useMutation({
    mutationFn: (id: string) => answer(api.DELETE('/workbooks/{workbook}', { params: { path: { workbook: id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  })
  return { workbooks: computed(() => (list.data.value?.items ?? []).filter(({ datasetId }) => datasetId === dataset())), putAway }
}
