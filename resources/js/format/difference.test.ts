import { describe, expect, it } from 'vitest'
import { difference, nearDifference, type Stretch } from '@/format/difference'

/** Marks what differs with brackets: "Thorn[ø]y". */
const drawn = (stretches: Stretch[]): string => stretches.map(({ text, differs }) => (differs ? `[${text}]` : text)).join('')
const both = (source: string, target: string): [string, string] => {
  const marked = difference(source, target)
  return [drawn(marked.source), drawn(marked.target)]
}

describe('what differs between two values', () => {
  it.each([
    ['equal values are not marked', 'Heron', 'Heron', 'Heron', 'Heron'],
    ['a letter', 'Thornøy', 'Thornoy', 'Thorn[ø]y', 'Thorn[o]y'],
    ['letters that changed places', 'Kingfisher', 'Kingfihser', 'Kingfi[s]her', 'Kingfih[s]er'],
    ['what was added at the end', '243.20', '243.200', '243.20', '243.20[0]'],
    ['a blank side', '', '1965', '', '[1965]'],
  ])('%s', (_, source, target, markedSource, markedTarget) => {
    expect(both(source, target)).toEqual([markedSource, markedTarget])
  })

  it('keeps a letter and its combining mark together', () => {
    expect(both('Jo\u0308rg', 'Jorg')).toEqual(['J[o\u0308]rg', 'J[o]rg'])
  })

  it('marks the middle of very long values as a whole', () => {
    const [a] = both(`x${'ab'.repeat(500)}y`, `x${'ba'.repeat(501)}y`)
    expect(a.startsWith('x')).toBe(true)
    expect(a.replaceAll(/[[\]]/g, '')).toBe(`x${'ab'.repeat(500)}y`)
  })

  it('brings the first difference into sight where there is little room', () => {
    const marked = nearDifference('Ezekiel Bartholomew Thornøy 7', 'Ezekiel Bartholomew Thornøy 8')
    expect([drawn(marked.source), drawn(marked.target)]).toEqual(['…ornøy [7]', '…ornøy [8]'])
    expect(drawn(nearDifference('Slow Heron', 'Slow Herons').target)).toBe('Slow Heron[s]')
    expect(drawn(nearDifference('a value that is equal', 'a value that is equal').source)).toBe('a value that is equal')
  })
})
