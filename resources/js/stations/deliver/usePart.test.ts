// @vitest-environment jsdom
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { ApiProblem, sendPiece, type Schemas } from '@/api/client'
import { usePart } from '@/stations/deliver/usePart'

const { api } = vi.hoisted(() => ({ api: { GET: vi.fn(), POST: vi.fn(), PUT: vi.fn(), DELETE: vi.fn() } }))
vi.mock('@tanstack/vue-query', () => ({ useQueryClient: () => ({ invalidateQueries: vi.fn() }) }))
vi.mock('@/api/client', async (original) => ({ ...(await original<object>()), api, answer: async (call: Promise<unknown>) => call, sendPiece: vi.fn() }))

const MEGABYTE = 1024 * 1024
const receipt = (receivedBytes: number, state: string): Schemas['Receipt'] => ({ id: 'r1', bytes: 10 * MEGABYTE, receivedBytes, state }) as Schemas['Receipt']
const file = new File([new Uint8Array(10 * MEGABYTE)], 'moorings_old.csv', { lastModified: 1 })
const part = () => effectScope().run(() => usePart(() => 7, 'source')) as ReturnType<typeof usePart>

/** The server: takes each piece at its place and answers how far it is. */
const taken: [number, number][] = []
const take = (_: string, offset: number, piece: Blob): Promise<Schemas['Receipt']> => {
  taken.push([offset, piece.size])
  const received = offset + piece.size
  return Promise.resolve(receipt(received, received === 10 * MEGABYTE ? 'received' : 'receiving'))
}

describe('bringing a file in', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    vi.resetAllMocks()
    taken.length = 0
    sessionStorage.clear()
    api.POST.mockResolvedValue(receipt(0, 'receiving'))
    vi.mocked(sendPiece).mockImplementation(take)
  })
  afterEach(() => vi.useRealTimers())

  it('goes in pieces of four megabytes, without a gap', async () => {
    const { send, sent, receipt: at } = part()
    await send(file)
    expect(taken).toEqual([[0, 4 * MEGABYTE], [4 * MEGABYTE, 4 * MEGABYTE], [8 * MEGABYTE, 2 * MEGABYTE]]) // prettier-ignore
    expect(sent.value).toBe(1)
    expect(at.value?.state).toBe('received')
  })

  it('goes on where it stopped, also after a reload', async () => {
    await part().send(file)
    taken.length = 0
    api.GET.mockResolvedValue(receipt(8 * MEGABYTE, 'receiving'))
    await part().send(file)

    expect(taken).toEqual([[8 * MEGABYTE, 2 * MEGABYTE]])
    expect(api.POST).toHaveBeenCalledTimes(1)
  })

  it('is tried again where the connection was lost', async () => {
    vi.mocked(sendPiece).mockRejectedValueOnce(new Error('lost'))
    const { send, error } = part()
    const sending = send(file)
    await vi.advanceTimersByTimeAsync(1_000)
    await sending

    expect(taken).toHaveLength(3)
    expect(error.value).toBeNull()
  })

  it('gives up after five lost connections, and says so', async () => {
    vi.mocked(sendPiece).mockRejectedValue(new Error('Nine Tally cannot be reached.'))
    const { send, error, receipt: at } = part()
    const sending = send(file)
    await vi.advanceTimersByTimeAsync(60_000)
    await sending

    expect(sendPiece).toHaveBeenCalledTimes(5)
    expect(error.value?.message).toBe('Nine Tally cannot be reached.')
    expect(at.value).toBeNull()
  })

  it('is not tried again where the server refuses it', async () => {
    vi.mocked(sendPiece).mockRejectedValue(new ApiProblem(422, 'not-text', 'Not usable', '"berths.xlsx" is a workbook.'))
    const { send, error } = part()
    await send(file)

    expect(sendPiece).toHaveBeenCalledTimes(1)
    expect(error.value?.message).toBe('"berths.xlsx" is a workbook.')
  })

  it('is a delivery when the server has read it, or an error in its words', async () => {
    const { send, take: enter, error, receipt: at } = part()
    await send(file)
    api.POST.mockResolvedValue(receipt(10 * MEGABYTE, 'reading'))
    api.GET.mockResolvedValueOnce(receipt(10 * MEGABYTE, 'reading')).mockResolvedValueOnce({
      ...receipt(10 * MEGABYTE, 'refused'),
      problem: 'Line 7 opens a quote that never closes.',
    })
    const entering = enter()
    await vi.advanceTimersByTimeAsync(2_000)
    await entering
    await flushPromises()

    expect(error.value?.message).toBe('Line 7 opens a quote that never closes.')
    expect(at.value).toBeNull()
  })
})
