import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { answer, api, ApiProblem, type Schemas, sendPiece } from '@/api/client'

const PIECE_BYTES = 4 * 1024 * 1024
const TRIES = 5
const SECOND = 1000

/** A file is known again after a reload by its place, name, size and time, so that sending goes on where it stopped. */
const memory = (dataset: number, side: string, file: File): string => ['nine-tally:part', dataset, side, file.name, file.size, file.lastModified].join(':')

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds))

/** Brings one file of one side in: piece by piece, looked at, corrected, then taken as a delivery. */
export function usePart(dataset: () => number, side: 'source' | 'target') {
  const queries = useQueryClient()
  const receipt = ref<Schemas['Receipt'] | null>(null)
  const error = ref<Error | null>(null)
  const isBusy = ref(false)
  let isGone = false
  onScopeDispose(() => {
    isGone = true
  })

  async function attempt<Result>(work: () => Promise<Result>): Promise<Result | undefined> {
    error.value = null
    isBusy.value = true
    try {
      return await work()
    } catch (problem) {
      error.value = problem as Error
      return undefined
    } finally {
      isBusy.value = false
    }
  }

  async function begin(file: File): Promise<Schemas['Receipt']> {
    const known = sessionStorage.getItem(memory(dataset(), side, file))
    if (known !== null) {
      const found = await answer(api.GET('/receipts/{receipt}', { params: { path: { receipt: known } } })).catch(() => null)
      if (found !== null && ['receiving', 'received'].includes(found.state)) return found
    }
    const begun = await answer(
      api.POST('/datasets/{dataset}/receipts', { params: { path: { dataset: dataset() } }, body: { side, fileName: file.name, bytes: file.size } }),
    )
    sessionStorage.setItem(memory(dataset(), side, file), begun.id)
    return begun
  }

  /** A lost connection is tried again from where the server stands; what the server refuses is not. */
  async function sendFrom(file: File, at: Schemas['Receipt']): Promise<Schemas['Receipt']> {
    for (let tried = 1; ; tried++) {
      try {
        return await sendPiece(at.id, at.receivedBytes, file.slice(at.receivedBytes, at.receivedBytes + PIECE_BYTES))
      } catch (problem) {
        if (problem instanceof ApiProblem || tried === TRIES) throw problem
        await pause(tried * SECOND)
      }
    }
  }

  const send = (file: File): Promise<void> =>
    attempt(async () => {
      receipt.value = null
      receipt.value = await begin(file)
      while (receipt.value.state === 'receiving' && !isGone) {
        receipt.value = await sendFrom(file, receipt.value)
      }
    }).then(() => {
      if (error.value !== null) receipt.value = null
    })

  const correct = (delimiter: string): Promise<unknown> =>
    attempt(async () => {
      if (receipt.value === null) return
      receipt.value = await answer(api.PUT('/receipts/{receipt}/format', { params: { path: { receipt: receipt.value.id } }, body: { delimiter } }))
    })

  const take = (): Promise<unknown> =>
    attempt(async () => {
      if (receipt.value === null) return
      receipt.value = await answer(api.POST('/receipts/{receipt}/delivery', { params: { path: { receipt: receipt.value.id } } }))
      while (receipt.value.state === 'reading' && !isGone) {
        await pause(SECOND / 3)
        receipt.value = await answer(api.GET('/receipts/{receipt}', { params: { path: { receipt: receipt.value.id } } }))
      }
      if (receipt.value.state === 'refused') throw new Error(receipt.value.problem ?? 'The file was refused.')
      receipt.value = null
      await Promise.all([queries.invalidateQueries({ queryKey: ['dataset'] }), queries.invalidateQueries({ queryKey: ['migration'] })])
    }).then(() => {
      if (error.value !== null) receipt.value = null
    })

  const discard = (): Promise<unknown> =>
    attempt(async () => {
      if (receipt.value === null) return
      await answer(api.DELETE('/receipts/{receipt}', { params: { path: { receipt: receipt.value.id } } }))
      receipt.value = null
    })

  const sent = computed(() => (receipt.value === null || receipt.value.bytes === 0 ? 0 : receipt.value.receivedBytes / receipt.value.bytes))

  return { receipt, error, isBusy, sent, send, correct, take, discard }
}
