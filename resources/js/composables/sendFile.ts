import { answer, api, ApiProblem, type Schemas, sendChunk } from '@/api/client'

const CHUNK_BYTES = 4 * 1024 * 1024
const TRIES = 5
const SECOND = 1000

/** A file is known again after a reload by its place, name, size and time, so that sending goes on where it stopped. */
const memory = (dataset: number, side: string, file: File): string => ['nine-tally:part', dataset, side, file.name, file.size, file.lastModified].join(':')

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds))

/** Says that a file is coming, or finds it where it was left. */
export async function begin(dataset: number, side: 'source' | 'target', file: File): Promise<Schemas['Receipt']> {
  const known = sessionStorage.getItem(memory(dataset, side, file))
  if (known !== null) {
    const found = await answer(api.GET('/receipts/{receipt}', { params: { path: { receipt: known } } })).catch(() => null)
    if (found !== null && ['receiving', 'received'].includes(found.state)) return found
  }
  const begun = await answer(api.POST('/datasets/{dataset}/receipts', { params: { path: { dataset } }, body: { side, fileName: file.name, bytes: file.size } }))
  sessionStorage.setItem(memory(dataset, side, file), begun.id)
  return begun
}

/** A lost connection is tried again from where the server stands; what the server refuses is not. */
async function sendFrom(file: File, at: Schemas['Receipt']): Promise<Schemas['Receipt']> {
  for (let tried = 1; ; tried++) {
    try {
      return await sendChunk(at.id, at.receivedBytes, file.slice(at.receivedBytes, at.receivedBytes + CHUNK_BYTES))
    } catch (problem) {
      if (problem instanceof ApiProblem || tried === TRIES) throw problem
      await pause(tried * SECOND)
    }
  }
}

/** Sends what the server has not got yet, chunk by chunk, as long as somebody wants it. */
export async function sendOn(
  file: File,
  at: Schemas['Receipt'],
  keep: (receipt: Schemas['Receipt']) => Schemas['Receipt'],
  isWanted: () => boolean = () => true,
): Promise<Schemas['Receipt']> {
  let receipt = at
  while (receipt.state === 'receiving' && receipt.receivedBytes < receipt.bytes && isWanted()) receipt = keep(await sendFrom(file, receipt))
  return receipt
}
