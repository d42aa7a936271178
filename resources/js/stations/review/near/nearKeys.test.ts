import { expect, it } from 'vitest'
import { candidatesAt, candidatesSentence, equivalentsOf, scoreOf, scoreSaid, whyColumn } from '@/stations/review/near/nearKeys'

it('counts rows with none, one and several candidates at every score', () => {
  const steps = (at: Record<number, number>): number[] => Array.from({ length: 51 }, (_, step) => at[step] ?? 0)
  const curve = { candidates: steps({ 10: 3, 30: 4, 50: 2 }), best: steps({ 10: 1, 30: 3, 50: 2 }), second: steps({ 10: 2, 30: 1 }) }
  expect(scoreOf(30)).toBeCloseTo(0.8)
  expect([0.9967, 1, 0.7].map(scoreSaid)).toEqual(['0.99', '1.00', '0.70'])
  expect(candidatesAt(curve, 10, 0.5)).toEqual({ none: 4, one: 3, several: 3 })
  expect(candidatesAt(curve, 10, 0.8)).toEqual({ none: 5, one: 4, several: 1 })
  expect(candidatesAt(curve, 10, 1)).toEqual({ none: 8, one: 2, several: 0 })
  expect(candidatesSentence(candidatesAt(curve, 10, 0.8))).toBe('4 of 10 missing rows have one candidate, 1 several, 5 none.')
})

it('reads words that mean the same, and leaves out what names no two words', () => {
  expect(equivalentsOf('Street = St.\n\nquay=\nheron row = hr\nNorth=N')).toEqual([
    { word: 'street', meaning: 'st' },
    { word: 'north', meaning: 'n' },
  ])
})

it('says what speaks for a column', () => {
  const column = { source: 'name', target: 'name', kind: 'words' as const, weight: 9, distinct: 1_200, rows: 1_300 }
  expect(whyColumn({ ...column, agreed: 0.984 })).toBe('1,200 values in 1,300 rows; agrees in 98 % of the rows that meet')
  expect(whyColumn({ ...column, agreed: null })).toBe('1,200 values in 1,300 rows')
})
