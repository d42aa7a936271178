/** A stretch of a value, and whether the other side has it too. */
export interface Stretch {
  text: string
  differs: boolean
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' })

/** Letters with their marks stay whole: a mark alone would be drawn on the wrong letter. */
const letters = (value: string): string[] => Array.from(segmenter.segment(value), ({ segment }) => segment)

/** Above this many steps the middle is marked as a whole: nobody reads a longer comparison letter by letter. */
const LARGEST_TABLE = 250_000

/**
 * Marks what differs between two values, letter by letter: a longest common subsequence of what lies between their equal
 * beginning and end (Hunt and McIlroy 1976).
 */
export function difference(source: string, target: string): { source: Stretch[]; target: Stretch[] } {
  const a = letters(source)
  const b = letters(target)
  let start = 0
  while (start < a.length && start < b.length && a[start] === b[start]) start++
  let end = 0
  while (end < a.length - start && end < b.length - start && a[a.length - 1 - end] === b[b.length - 1 - end]) end++
  const middleA = a.slice(start, a.length - end)
  const middleB = b.slice(start, b.length - end)
  const [keptA, keptB] = common(middleA, middleB)
  return { source: stretches(a, start, keptA), target: stretches(b, start, keptB) }
}

const BEFORE = 6
const UNCUT = 12

/** For a narrow place: a long beginning that both sides share is cut, so that the first difference is in sight. */
export function nearDifference(source: string, target: string): { source: Stretch[]; target: Stretch[] } {
  const marked = difference(source, target)
  return { source: cutBeginning(marked.source), target: cutBeginning(marked.target) }
}

function cutBeginning(all: Stretch[]): Stretch[] {
  const [first, ...rest] = all
  if (first === undefined || first.differs || rest.length === 0) return all
  const beginning = letters(first.text)
  return beginning.length <= UNCUT ? all : [{ text: `…${beginning.slice(-BEFORE).join('')}`, differs: false }, ...rest]
}

function common(a: string[], b: string[]): [boolean[], boolean[]] {
  const keptA = a.map(() => false)
  const keptB = b.map(() => false)
  if (a.length * b.length > LARGEST_TABLE) {
    return [keptA, keptB]
  }
  const width = b.length + 1
  const lengths = new Uint16Array((a.length + 1) * width)
  const at = (i: number, j: number): number => lengths[i * width + j] ?? 0
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      lengths[i * width + j] = a[i] === b[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1))
    }
  }
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) {
      keptA[i++] = true
      keptB[j++] = true
    } else if (at(i + 1, j) >= at(i, j + 1)) {
      i++
    } else {
      j++
    }
  }
  return [keptA, keptB]
}

function stretches(all: string[], start: number, kept: boolean[]): Stretch[] {
  const found: Stretch[] = []
  all.forEach((letter, position) => {
    const inMiddle = position >= start && position < start + kept.length
    const differs = inMiddle && !kept[position - start]
    const last = found[found.length - 1]
    if (last?.differs === differs) {
      last.text += letter
    } else {
      found.push({ text: letter, differs })
    }
  })
  return found
}
