import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { ApiProblem, sendChunk, type Schemas } from '@/api/client'
import { useParts } from '@/stations/deliver/useParts'

const { api } = vi.hoisted(() => ({ api: { GET: vi.fn(), POST: vi.fn(), PUT: vi.fn(), DELETE: vi.fn() } }))
vi.mock('@tanstack/vue-query', () => ({ useQueryClient: () => ({ invalidateQueries: vi.fn() }) }))
vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api, answer: async (call: Promise<unknown>) => call, sendChunk: vi.fn() }))

const MEGABYTE = 1024 * 1024
const receipt = (receivedBytes: number, state: string): Schemas['Receipt'] => ({ id: 'r1', bytes: 10 * MEGABYTE, receivedBytes, state }) as Schemas['Receipt']
const file = new File([new Uint8Array(10 * MEGABYTE)], 'moorings_old.csv', { lastModified: 1 })
const parts = () => effectScope().run(() => useParts(() => 7, 'source')) as ReturnType<typeof useParts>
const terms = { partLabels: {}, partLabelColumn: null, asOf: null, rowsClaimed: null, totals: [], trailers: {} }

/** The server: takes each chunk at its place and answers how far it is. */
const taken: [number, number][] = []
const take = (_: string, offset: number, chunk: Blob): Promise<Schemas['Receipt']> => {
  taken.push([offset, chunk.size])
  const received = offset + chunk.size
  return Promise.resolve(receipt(received, received === 10 * MEGABYTE ? 'received' : 'receiving'))
}

describe('bringing a file in', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    vi.resetAllMocks()
    taken.length = 0
    sessionStorage.clear()
    api.POST.mockResolvedValue(receipt(0, 'receiving'))
    vi.mocked(sendChunk).mockImplementation(take)
  })
  afterEach(() => vi.useRealTimers())

  it('goes in chunks of four megabytes, without a gap', async () => {
    const { send, receipts } = parts()
    await send([file])
    expect(taken).toEqual([[0, 4 * MEGABYTE], [4 * MEGABYTE, 4 * MEGABYTE], [8 * MEGABYTE, 2 * MEGABYTE]]) // prettier-ignore
    expect(receipts.value.map(({ state }) => state)).toEqual(['received'])
  })

  it('goes on where it stopped, also after a reload', async () => {
    await parts().send([file])
    taken.length = 0
    api.GET.mockResolvedValue(receipt(8 * MEGABYTE, 'receiving'))
    await parts().send([file])

    expect(taken).toEqual([[8 * MEGABYTE, 2 * MEGABYTE]])
    expect(api.POST).toHaveBeenCalledTimes(1)
  })

  it('several files come one after the other and are taken together, in their order', async () => {
    api.POST.mockImplementation((_, { body }: { body: { fileName?: string } }) => Promise.resolve({ ...receipt(0, 'receiving'), id: body.fileName ?? '' }))
    vi.mocked(sendChunk).mockImplementation((id) => Promise.resolve({ ...receipt(10 * MEGABYTE, 'received'), id }))
    const { send, take: enter, receipts } = parts()
    await send([new File(['a'], 'spring.csv'), new File(['b'], 'summer.csv')])
    expect(receipts.value.map(({ id }) => id)).toEqual(['spring.csv', 'summer.csv'])

    api.POST.mockResolvedValue({ items: ['spring.csv', 'summer.csv'].map((id) => ({ ...receipt(10 * MEGABYTE, 'delivered'), id })) })
    await enter({ ...terms, partLabels: { 'summer.csv': 'summer' }, partLabelColumn: 'part' })
    expect(api.POST.mock.lastCall?.[1].body).toMatchObject({
      parts: [{ receipt: 'spring.csv' }, { receipt: 'summer.csv', partLabel: 'summer' }],
      partLabelColumn: 'part',
    })
    expect(receipts.value).toEqual([])
  })

  it('becomes the files of the archive that it is; one that is no table is named', async () => {
    const found = (id: string, more: object) => ({ ...receipt(10 * MEGABYTE, 'received'), id, ...more })
    vi.mocked(sendChunk).mockResolvedValueOnce(found('r1', { state: 'unpacked', unpackedInto: ['a', 'b'] }) as never)
    api.GET.mockImplementation((_, { params }: { params: { path: { receipt: string } } }) =>
      Promise.resolve(found(params.path.receipt, params.path.receipt === 'b' ? { state: 'refused', problem: '"b" is a picture.' } : {})),
    )
    const { send, receipts, error } = parts()
    await send([file])

    expect(receipts.value.map(({ id }) => id)).toEqual(['a'])
    expect(error.value?.message).toBe('"b" is a picture.')
  })

  it('can be the rows of a query, once they are all there', async () => {
    api.POST.mockResolvedValue({ ...receipt(0, 'receiving'), id: 'query' })
    api.GET.mockResolvedValueOnce({ ...receipt(0, 'receiving'), id: 'query', recordsRead: 2_000 }).mockResolvedValueOnce({
      ...receipt(9, 'received'),
      id: 'query',
    })
    const { ask, receipts } = parts()
    const asking = ask('Old system', { sql: 'SELECT 1' })
    await vi.advanceTimersByTimeAsync(1_000)
    await asking

    expect(api.POST.mock.lastCall?.[1].body).toEqual({ side: 'source', source: 'Old system', sql: 'SELECT 1' })
    expect(receipts.value.map(({ state }) => state)).toEqual(['received'])
  })

  it('waits again after a reload', async () => {
    api.GET.mockResolvedValue({ items: [receipt(10 * MEGABYTE, 'received')] })
    const { restore, receipts } = parts()
    await restore()

    expect(receipts.value.map(({ id }) => id)).toEqual(['r1'])
  })

  it('is tried again where the connection was lost', async () => {
    vi.mocked(sendChunk).mockRejectedValueOnce(new Error('lost'))
    const { send, error } = parts()
    const sending = send([file])
    await vi.advanceTimersByTimeAsync(1_000)
    await sending

    expect(taken).toHaveLength(3)
    expect(error.value).toBeNull()
  })

  it('gives up after five lost connections, and says so', async () => {
    vi.mocked(sendChunk).mockRejectedValue(new Error('Nine Tally cannot be reached.'))
    const { send, error, receipts } = parts()
    const sending = send([file])
    await vi.advanceTimersByTimeAsync(60_000)
    await sending

    expect(sendChunk).toHaveBeenCalledTimes(5)
    expect(error.value?.message).toBe('Nine Tally cannot be reached.')
    expect(receipts.value).toEqual([])
  })

  it('is not tried again where the server refuses it', async () => {
    vi.mocked(sendChunk).mockRejectedValue(new ApiProblem(422, 'not-text', 'Not usable', '"berths.xlsx" is a workbook.'))
    const { send, error } = parts()
    await send([file])

    expect(sendChunk).toHaveBeenCalledTimes(1)
    expect(error.value?.message).toBe('"berths.xlsx" is a workbook.')
  })

  it('is a delivery when the server has read it, or an error in its words', async () => {
    const { send, take: enter, error, receipts } = parts()
    await send([file])
    api.POST.mockResolvedValue({ items: [receipt(10 * MEGABYTE, 'reading')] })
    api.GET.mockResolvedValueOnce(receipt(10 * MEGABYTE, 'reading')).mockResolvedValueOnce({
      ...receipt(10 * MEGABYTE, 'refused'),
      problem: 'Line 7 opens a quote that never closes.',
    })
    const entering = enter(terms)
    await vi.advanceTimersByTimeAsync(2_000)
    await entering
    await flushPromises()

    expect(error.value?.message).toBe('Line 7 opens a quote that never closes.')
    expect(receipts.value).toEqual([])
  })
})
