import { expect, it } from 'vitest'
import { clear, divided, entryOf, foundSentence, type Found } from '@/stations/review/near/nearValues'

const value = (name: string, score: number, hasRival = false) => ({
  value: name,
  rows: 2,
  beside: [],
  hasRival,
  candidates: [
    { value: 'Kestrel Broad', rows: 40, beside: [], score, reason: '' },
    { value: 'Lime Mere', rows: 31, beside: [], score: score - 0.2, reason: '' },
  ],
})
const found: Found = {
  kind: 'words',
  alike: [],
  all: { source: 9, target: 7 },
  beyond: false,
  same: 5,
  alone: 1,
  values: [value('Kestrel Broda', 0.9), value('KESTREL', 0.6), value('Broad', 0.95, true)],
}

it('accounts for every value', () => {
  expect(foundSentence(found)).toBe('Of 9 different values 5 stand on both sides, 3 are like one of the 7 there, 1 is like none.')
})

it('lists what is open, and takes together what needs no look', () => {
  const { open, known } = divided(found, [{ source: 'KESTREL', target: 'Kestrel Broad' }])
  expect(open.map((one) => one.value)).toEqual(['Kestrel Broda', 'Broad'])
  expect(known.get('KESTREL')).toBe('Kestrel Broad')
  expect(clear(open).map((one) => one.value)).toEqual(['Kestrel Broda'])
  expect(open.flatMap((one) => entryOf(one, 1))).toEqual([
    { source: 'Kestrel Broda', target: 'Lime Mere' },
    { source: 'Broad', target: 'Lime Mere' },
  ])
})
