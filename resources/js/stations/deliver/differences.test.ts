import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { byWeight, differenceInWords } from '@/stations/deliver/differences'

describe('what differs between two profiles', () => {
  it.each([
    [{ fact: 'only', source: '', target: null }, 'only in the source'],
    [{ fact: 'blank', source: '0', target: '1350' }, 'blank in 0 rows of the source and 1,350 rows of the target'],
    [{ fact: 'kind', source: 'date', target: 'text' }, 'date in the source, text in the target'],
    [{ fact: 'values', source: 'A, B', target: null }, 'only in the source: A, B'],
    [{ fact: 'shorter', source: '40', target: '20' }, 'at most 40 characters in the source, 20 in the target'],
    [{ fact: 'sum', source: '10.5', target: '9' }, 'sum 10.5 in the source, 9 in the target'],
  ] as const)('is said in words', (difference, words) => {
    expect(differenceInWords(difference)).toBe(words)
  })

  it('comes first where there is most of it, and stays in the order of the file where there is none', () => {
    const row = (weight: number, by: string) => ({ weight, by }) as unknown as Schemas['ProfileRow']
    expect(byWeight([row(0, 'a'), row(5, 'b'), row(0, 'c'), row(60, 'd')]).map(({ by }) => by)).toEqual(['d', 'b', 'a', 'c'])
  })
})
