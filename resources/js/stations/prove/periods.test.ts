import { expect, test } from 'vitest'
import type { Schemas } from '@/api/client'
import { periodsOf, withPeriod } from '@/stations/prove/periods'

const draft = {
  key: [],
  leftOut: { source: [], target: [] },
  columnPairs: [
    { id: '', source: 'paid until', target: 'paid_until', kind: 'date' },
    { id: '', source: 'fee', target: 'fee', kind: 'number' },
  ],
} as unknown as Schemas['PlanDraft']

test('a column of dates makes its months by one step on each side, and no step twice', () => {
  const [month] = periodsOf(draft)
  if (month === undefined) throw new Error('A date has months.')
  expect(periodsOf(draft)).toHaveLength(2)
  const once = withPeriod(draft, month, () => 'step-1')
  expect(once.sides?.source?.preparation).toEqual([
    {
      id: 'step-1',
      kind: 'compute-column',
      into: 'paid until month',
      formula: 'year(column("paid until")) ~ "-" ~ right("0" ~ month(column("paid until")), 2)',
    },
  ])
  expect(once.sides?.target?.preparation?.[0]?.formula).toBe('year(paid_until) ~ "-" ~ right("0" ~ month(paid_until), 2)')
  expect(withPeriod(once, month, () => 'step-2')).toEqual(once)
})
