import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const SECOND = 1000

/** What files that wait would change, and which of them share rows: told before they are taken. */
export function useWaitingParts(dataset: () => number, side: () => 'source' | 'target', receipts: () => readonly Schemas['Receipt'][]) {
  const waiting = computed(() => receipts().filter(({ state }) => state === 'received'))
  return useQuery({
    queryKey: ['waiting-parts', dataset, side, () => waiting.value.map(({ id, preview }) => [id, preview?.format])],
    queryFn: () =>
      answer(
        api.POST('/datasets/{dataset}/waiting-parts', {
          params: { path: { dataset: dataset() } },
          body: { side: side(), receipts: waiting.value.map(({ id }) => id) },
        }),
      ),
    enabled: () => waiting.value.length > 0 && waiting.value.length === receipts().length,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND / 2 : false),
  })
}
