import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { barsOf, heightOf } from '@/stations/review/weight'

const pattern = (pair: string, source: string, cellClass: string, cells: number) => ({ pair, source, class: cellClass, cells })
const tally = (rowLists: object[], patterns: object[]) => ({ rowLists, patterns }) as unknown as Schemas['Tally']

describe('the picture of where the weight lies', () => {
  it('has a bar for whole rows, then one for each pair, the heaviest first', () => {
    const bars = barsOf(
      tally(
        [
          { class: null, rows: 20 },
          { class: 'missing', rows: 3 },
          { class: 'extra', rows: 2 },
          { class: 'changed', rows: 15 },
        ],
        [pattern('pair-1', 'fee', 'changed', 4), pattern('pair-2', 'holder', 'blanked', 9), pattern('pair-1', 'fee', 'changed', 1)],
      ),
    )

    expect(bars.map(({ name }) => name)).toEqual(['whole rows', 'holder', 'fee'])
    expect(bars[0]?.parts.map(({ at, words, findings }) => [at, words, findings])).toEqual([
      ['above', 'missing rows', 3],
      ['below', 'extra rows', 2],
    ])
    // Two patterns of one class are one part, and what it filters is both.
    expect(bars[2]?.parts).toEqual([{ at: 'across', words: 'changed cells', findings: 5, subject: { pair: 'pair-1', cellClass: 'changed' } }])
    expect(bars[1]?.parts[0]?.at).toBe('above')
  })

  it('has no bar for rows where all rows meet', () => {
    expect(barsOf(tally([{ class: 'changed', rows: 15 }], [pattern('pair-1', 'fee', 'filled', 4)])).map(({ name }) => name)).toEqual(['fee'])
  })

  it('shows three cells beside a million, and nothing where there is nothing', () => {
    expect(heightOf(3, 1_000_000)).toBe(4)
    expect(heightOf(250_000, 1_000_000)).toBe(50)
    expect(heightOf(0, 1_000_000)).toBe(0)
    expect(heightOf(0, 0)).toBe(0)
  })
})
