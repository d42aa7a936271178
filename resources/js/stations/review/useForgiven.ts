import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import { keyCells } from '@/format/key'

const SECOND = 1000
/** Cells of one page. */
export const FORGIVEN_PAGE = 100

/** A page of the cells that a rule let pass; who asks first waits until a worker has listed those of the tally. */
export function useForgiven(tally: () => Schemas['Tally'], number: () => number, from: () => number, text: () => string) {
  return useQuery({
    queryKey: ['tally', () => tally().id, 'forgiven', number, from, text],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/tallies/{tally}/forgiven/{number}', {
          params: {
            path: { tally: tally().id, number: number() },
            query: { from: from(), limit: FORGIVEN_PAGE, ...(text() === '' ? {} : { text: text() }) },
          },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? SECOND : false),
  })
}

const LOOK_AGAIN = 700

/** The record of a row that met its counterpart, whether it differs or agrees; null where the key cannot be looked for. */
export async function recordOfKey(tally: number, key: string): Promise<Schemas['Record'] | null> {
  const path = { tally }
  const { items } = await answer(api.GET('/tallies/{tally}/keys', { params: { path, query: { find: key } } }))
  const found = items.find((item) => item.key === key && item.class === 'changed')
  if (found !== undefined) return answer(api.GET('/tallies/{tally}/records/{sequence}', { params: { path: { tally, sequence: found.sequence } } }))
  for (;;) {
    const looked = await answer(api.GET('/tallies/{tally}/agreeing-row', { params: { path, query: { 'key[]': keyCells(key) } } }))
    if (!looked.isWaiting) return looked.record
    await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN))
  }
}
