import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { filterOf, isOfCells, sentenceOf, takenFrom, termsSaid, wholeOf, withSubject } from '@/stations/review/filter'
import { barsOf, heightOf } from '@/stations/review/weight'

const tally = {
  keyColumns: ['basin', 'berth'],
  rowLists: [
    { class: null, rows: 20, slices: [] },
    { class: 'missing', rows: 14, slices: [] },
    { class: 'extra', rows: 2, slices: [] },
    { class: 'changed', rows: 4, slices: [] },
  ],
  patterns: [
    { number: 1, pair: 'pair-b', source: 'fee', class: 'changed', cells: 90, sentence: 'rounded' },
    { number: 2, pair: 'pair-a', source: 'holder', class: 'changed', cells: 100, sentence: 'capitals differ' },
    { number: 3, pair: 'pair-b', source: 'fee', class: 'filled', cells: 9, sentence: 'filled' },
    { number: 4, pair: 'pair-b', source: 'fee', class: 'changed', cells: 10, sentence: 'negated' },
  ],
} as unknown as Schemas['Tally']

describe('the filter of an address', () => {
  it('keeps a blank value, for that is a value, and leaves what it does not know', () => {
    expect(filterOf({ tally: '7', source: '', text: '', pattern: '3', act: '0', keyColumn: 'x', key: ' ', ruling: null, class: ['missing'] })).toEqual({
      source: '',
      pattern: 3,
      key: ' ',
    })
  })

  it('is of cells as soon as it says what only cells have', () => {
    expect([{}, { class: 'missing' }, { text: 'x' }].map((filter) => isOfCells(filter as never))).toEqual([false, false, false])
    expect([{ of: 'cells' }, { target: '' }, { cause: 'case' }].map((filter) => isOfCells(filter as never))).toEqual([true, true, true])
  })

  it('stays as narrow with another subject, but for values and acts of the one that was left', () => {
    const filter = { pattern: 2, source: 'A', target: 'B', act: 4, ruling: 'open', text: 'osei', key: 'KB', keyColumn: 1 } as const
    expect(withSubject(filter, { class: 'missing' })).toEqual({ class: 'missing', ruling: 'open', text: 'osei', key: 'KB', keyColumn: 1 })
  })

  it('is a whole pattern or class only if nothing narrows it, and changed rows are ruled on by their cells', () => {
    expect(wholeOf({ pattern: 2 })).toEqual({ scope: 'pattern', target: '2' })
    expect(wholeOf({ class: 'missing' })).toEqual({ scope: 'class', target: 'missing' })
    expect([{ pattern: 2, ruling: 'open' }, { class: 'changed' }, {}].map((filter) => wholeOf(filter as never))).toEqual([null, null, null])
  })

  it('says itself in words, each term to be taken away', () => {
    const filter = { pattern: 2, source: '', key: 'KB', keyColumn: 1, ruling: 'reopened' } as const
    expect(sentenceOf(filter, tally)).toBe('holder: capitals differ, source is "", basin is "KB", open again')
    expect(termsSaid(filter, tally).map(({ terms }) => terms)).toEqual([['source'], ['key', 'keyColumn'], ['ruling']])
  })

  it('takes away what it means, with every letter of it', () => {
    expect(takenFrom(7, { source: ' a&b=', ruling: undefined }, 'csv')).toBe('/api/v1/tallies/7/findings/taken?as=csv&source=+a%26b%3D')
    expect(takenFrom(7, { of: 'cells' }, 'schema', ['fee'])).toBe('/api/v1/tallies/7/findings/table-schema?of=cells&beside%5B%5D=fee')
  })
})

describe('the picture of the weight', () => {
  it('has whole rows first, then the columns, the heaviest first, with what each side has alone on its own side of the line', () => {
    expect(barsOf(tally).map(({ name, parts }) => [name, ...parts.map(({ at, findings }) => `${at} ${findings}`)])).toEqual([
      ['whole rows', 'above 14', 'below 2'],
      ['fee', 'across 100', 'below 9'],
      ['holder', 'across 100'],
    ])
  })

  it('shows three beside a million, and nothing where there is nothing', () => {
    expect([heightOf(1_000_000, 1_000_000), heightOf(250_000, 1_000_000), heightOf(3, 1_000_000), heightOf(0, 9)]).toEqual([100, 50, 4, 0])
  })
})
