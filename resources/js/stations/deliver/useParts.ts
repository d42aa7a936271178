import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { begin, sendOn } from '@/composables/sendFile'

const SECOND = 1000

/** Which cells of the last record, from 1, say how many rows there are and what columns add up to. */
export interface TrailerMeaning {
  rows: number | null
  totals: { column: string; cell: number }[]
}
/** Of a database: the rows of a query, or of a table. */
export type Asked = { sql: string; values?: Record<string, string> } | { table: { name: string; columns: string[]; where: string; orderBy: string[] } }
export interface Terms {
  partLabels: Record<string, string>
  partLabelColumn: string | null
  asOf: string | null
  rowsClaimed: number | null
  totals: { column: string; sum: string }[]
  trailers: Record<string, TrailerMeaning>
}
export type Corrections = Partial<
  Pick<Schemas['Format'], 'delimiter' | 'lineEnds' | 'encoding' | 'header' | 'skipAbove' | 'skipBelow' | 'starts' | 'path' | 'sheet' | 'headerRow' | 'quote'>
> & { kind?: 'delimited' | 'fixed-width' }

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds))

/** Brings the files of one side in: chunk by chunk, looked at, corrected, then taken together as a delivery. */
export function useParts(dataset: () => number, side: 'source' | 'target') {
  const queries = useQueryClient()
  const receipts = ref<Schemas['Receipt'][]>([])
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

  /** Puts what the server says of a file in its place; a new one comes last. */
  function keep(receipt: Schemas['Receipt']): Schemas['Receipt'] {
    const place = receipts.value.findIndex((known) => known.id === receipt.id)
    if (place === -1) receipts.value.push(receipt)
    else receipts.value[place] = receipt
    return receipt
  }

  const forget = (id: string): void => {
    receipts.value = receipts.value.filter((receipt) => receipt.id !== id)
  }

  /** What the server has made of a file by now. */
  const look = (id: string): Promise<Schemas['Receipt']> => answer(api.GET('/receipts/{receipt}', { params: { path: { receipt: id } } }))

  /** A file is here; what it is a worker finds out. */
  async function lookedAt(receipt: Schemas['Receipt']): Promise<Schemas['Receipt']> {
    while (receipt.state === 'receiving' && !isGone) {
      await pause(SECOND / 5)
      receipt = keep(await look(receipt.id))
    }
    if (receipt.state !== 'refused') return receipt
    forget(receipt.id)
    throw new Error(receipt.problem ?? 'The file was refused.')
  }

  /** Files that arrived earlier and were not taken: they wait here again after a reload, or for somebody else. */
  const restore = (): Promise<unknown> =>
    attempt(async () => {
      const { items } = await answer(api.GET('/datasets/{dataset}/receipts', { params: { path: { dataset: dataset() }, query: { side } } }))
      for (const receipt of items) keep(receipt)
      for (const { id, state, bytes, receivedBytes } of items) {
        if (state === 'receiving' && bytes > 0 && receivedBytes === bytes) await lookedAt(keep(await look(id)))
      }
    })

  /** The files of an archive take its place; those that are no tables are named, and the others stay. */
  async function unpacked(archive: Schemas['Receipt']): Promise<void> {
    forget(archive.id)
    const problems: string[] = []
    for (const id of archive.unpackedInto ?? []) {
      const part = await look(id)
      if (part.state === 'received') keep(part)
      else if (part.problem !== null) problems.push(part.problem)
    }
    if (problems.length > 0) throw new Error(problems.join(' '))
  }

  /** One file after the other: the first that fails stops the rest, and those that are here stay. */
  const send = (files: readonly File[]): Promise<unknown> =>
    attempt(async () => {
      for (const file of files) {
        let receipt = keep(await begin(dataset(), side, file))
        try {
          receipt = await lookedAt(await sendOn(file, receipt, keep, () => !isGone))
          if (receipt.state === 'unpacked') await unpacked(receipt)
        } catch (problem) {
          forget(receipt.id)
          throw problem
        }
      }
    })

  /** Has the rows of a query written down; what comes of it waits like a file. */
  const ask = (source: string, what: Asked): Promise<unknown> =>
    attempt(async () => {
      let receipt = keep(await answer(api.POST('/datasets/{dataset}/snapshots', { params: { path: { dataset: dataset() } }, body: { side, source, ...what } })))
      while (receipt.state === 'receiving' && !isGone) {
        await pause(SECOND / 3)
        receipt = keep(await look(receipt.id))
      }
      if (receipt.state === 'refused') {
        forget(receipt.id)
        throw new Error(receipt.problem ?? 'The query was refused.')
      }
      // Pages of a feed wait each by itself.
      if (receipt.state === 'unpacked') await unpacked(receipt)
    })

  const correct = (receipt: string, corrections: Corrections): Promise<unknown> =>
    attempt(async () => keep(await answer(api.PUT('/receipts/{receipt}/format', { params: { path: { receipt } }, body: corrections }))))

  /** The sheets of a workbook that have the columns of the one that is read wait beside it. */
  const takeSheets = (receipt: string): Promise<unknown> =>
    attempt(async () => {
      const { items } = await answer(api.POST('/receipts/{receipt}/sheets', { params: { path: { receipt } } }))
      for (const part of items) keep(part)
    })

  const take = (terms: Terms): Promise<unknown> =>
    attempt(async () => {
      const parts = receipts.value.map(({ id }) => ({
        receipt: id,
        ...(terms.partLabels[id] === undefined ? {} : { partLabel: terms.partLabels[id] }),
        ...(terms.trailers[id] === undefined ? {} : { trailer: terms.trailers[id] }),
      }))
      const { partLabelColumn, asOf, rowsClaimed, totals } = terms
      const taken = await answer(
        api.POST('/datasets/{dataset}/deliveries', {
          params: { path: { dataset: dataset() } },
          body: { side, parts, partLabelColumn, asOf, rowsClaimed, totals },
        }),
      )
      taken.items.forEach(keep)
      while (receipts.value.some(({ state }) => state === 'reading') && !isGone) {
        await pause(SECOND / 3)
        for (const { id, state } of receipts.value) {
          if (state === 'reading') keep(await look(id))
        }
      }
      const refused = receipts.value.find(({ state }) => state === 'refused')
      receipts.value = receipts.value.filter(({ state }) => state === 'received')
      if (refused !== undefined) throw new Error(refused.problem ?? 'The file was refused.')
      await Promise.all([queries.invalidateQueries({ queryKey: ['dataset'] }), queries.invalidateQueries({ queryKey: ['migration'] })])
    })

  const discard = (...ids: string[]): Promise<unknown> =>
    attempt(async () => {
      for (const receipt of ids) {
        await answer(api.DELETE('/receipts/{receipt}', { params: { path: { receipt } } }))
        forget(receipt)
      }
    })

  const isReading = computed(() => receipts.value.some(({ state }) => state === 'reading'))
  const isSending = computed(() => receipts.value.some(({ state }) => state === 'receiving'))

  return { receipts, error, isBusy, isReading, isSending, restore, send, ask, correct, takeSheets, take, discard }
}
