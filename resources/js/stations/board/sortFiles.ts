/** Words of file names that say which side it is, beside the names of the sides themselves. */
const OF_SIDE = {
  source: ['old', 'source', 'src', 'before', 'legacy', 'from', 'alt'],
  target: ['new', 'target', 'tgt', 'after', 'to', 'neu'],
} as const

export interface Sorted {
  dataset: number | null
  side: 'source' | 'target' | null
}

/** "BerthCharges_old-2" as berth, charges, old. */
const words = (name: string): string[] =>
  name
    .replace(/(\.[a-z0-9]{1,5}){1,2}$/i, '')
    .replaceAll(/(?<=\p{Ll})(?=\p{Lu})/gu, ' ')
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter((word) => word !== '')

/** One word is the other, or the other with an ending. */
const alike = (one: string, other: string): boolean =>
  one === other || (Math.min(one.length, other.length) > 2 && (one.startsWith(other) || other.startsWith(one)))

/** To which dataset and side a file belongs by its name; null where the name says nothing, or the same of two. */
export function sortFile(file: string, datasets: readonly { id: number; name: string }[], labels: { source: string; target: string }): Sorted {
  const said = words(file)
  const scores = datasets.map(({ id, name }) => {
    const own = words(name)
    const met = own.filter((word) => said.some((one) => alike(one, word))).length
    return { id, met, score: met / Math.max(1, own.length) }
  })
  const best = Math.max(0, ...scores.map(({ score }) => score))
  // Of two names that are there whole, the longer one is meant.
  const most = Math.max(0, ...scores.filter(({ score }) => score === best).map(({ met }) => met))
  const winners = scores.filter(({ score, met }) => score === best && met === most && score > 0.5)
  const isOf = (side: 'source' | 'target'): boolean =>
    said.some((word) => (OF_SIDE[side] as readonly string[]).includes(word)) || words(labels[side]).some((word) => word !== 'register' && said.includes(word))
  const sides = (['source', 'target'] as const).filter(isOf)
  return { dataset: winners.length === 1 ? (winners[0]?.id ?? null) : null, side: sides.length === 1 ? (sides[0] ?? null) : null }
}
