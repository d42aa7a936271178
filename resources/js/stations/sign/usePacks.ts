import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'

const BETWEEN_LOOKS = 700
const CHUNK_BYTES = 4 * 1024 * 1024
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, BETWEEN_LOOKS))

/** The evidence packs of a tally, and one that is being made. */
export function usePacks(tally: () => number) {
  const queries = useQueryClient()
  const packs = useQuery({
    queryKey: ['tally', tally, 'packs'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/packs', { params: { path: { tally: tally() } }, signal })),
    enabled: () => tally() > 0,
  })
  const order = ref<Schemas['PackOrder'] | null>(null)
  const error = ref<Error | null>(null)
  let isGone = false
  onScopeDispose(() => {
    isGone = true
  })
  async function make(hasClearValues: boolean): Promise<void> {
    error.value = null
    const path = { params: { path: { tally: tally() } } }
    try {
      order.value = await answer(hasClearValues ? api.POST('/tallies/{tally}/clear-pack-orders', path) : api.POST('/tallies/{tally}/pack-orders', path))
      while (['queued', 'packing'].includes(order.value.state) && !isGone) {
        await pause()
        order.value = await answer(api.GET('/pack-orders/{packOrder}', { params: { path: { packOrder: order.value.id } } }))
      }
      if (order.value.state === 'failed') throw new Error(order.value.problem ?? 'The pack could not be made.')
      await queries.invalidateQueries({ queryKey: ['tally', tally(), 'packs'] })
    } catch (problem) {
      error.value = problem as Error
    } finally {
      order.value = null
    }
  }
  return { packs, make, error, isMaking: computed(() => order.value !== null) }
}

/** Sends a pack in pieces and waits until it has been looked through. */
export function usePackCheck() {
  const check = ref<Schemas['PackCheck'] | null>(null)
  const error = ref<Error | null>(null)
  let round = 0
  onScopeDispose(() => {
    round++
  })
  async function send(file: File, key: string): Promise<void> {
    const mine = ++round
    error.value = null
    check.value = null
    try {
      let at = await answer(api.POST('/pack-checks', { body: { fileName: file.name, bytes: file.size, key: key.trim() === '' ? null : key.trim() } }))
      while (at.state === 'receiving' && round === mine) {
        check.value = at
        at = await answer(
          api.PUT('/pack-checks/{inspection}/chunks/{offset}', {
            params: { path: { inspection: at.id, offset: at.receivedBytes } },
            body: file.slice(at.receivedBytes, at.receivedBytes + CHUNK_BYTES) as unknown as string,
            bodySerializer: (body) => body as unknown as Blob,
            headers: { 'Content-Type': 'application/octet-stream' },
          }),
        )
      }
      while (at.state === 'checking' && round === mine) {
        check.value = at
        await pause()
        at = await answer(api.GET('/pack-checks/{inspection}', { params: { path: { inspection: at.id } } }))
      }
      if (at.state === 'failed') throw new Error('The pack could not be looked through. Send it again; if that fails, ask whoever runs Nine Tally.')
      check.value = at
    } catch (problem) {
      check.value = null
      error.value = problem as Error
    }
  }
  return { check, error, send }
}
