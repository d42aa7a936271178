import { expect, it } from 'vitest'
import { ownOf, withOwn } from '@/format/ownPolicies'
import { candidates, keptBy, kindOf, moved, nameOfNow, withChosen } from '@/stations/review/repeats/policies'

const aside = { policy: 'set-aside' as const }

it('tries every policy for the sides that are asked about, but for the one that the plan has', () => {
  const deciding = { source: 'seen', target: 'seen_on', kind: 'date' as const }
  const both = candidates({ source: aside, target: aside }, 'both', deciding, { source: ['loaded'], target: [] })
  expect(both.map(({ name }) => name)).toEqual([
    'keep the first',
    'keep the last',
    'keep the highest seen',
    'keep the lowest seen',
    'collapse exact copies, whatever loaded',
    'pair in order',
  ])
  expect(both[2]?.policies).toEqual({
    source: { policy: 'keep-highest', column: 'seen', kind: 'date' },
    target: { policy: 'keep-highest', column: 'seen_on', kind: 'date' },
  })
  const one = candidates({ source: aside, target: { policy: 'keep-last' } }, 'source', null, { source: [], target: [] })
  expect(one.map(({ policies }) => policies.target.policy)).toEqual(['keep-last', 'keep-last', 'keep-last'])
  expect(
    candidates({ source: { policy: 'pair-in-order' }, target: { policy: 'pair-in-order' } }, 'target', null, { source: [], target: [] })[0]?.policies,
  ).toEqual({
    source: aside,
    target: aside,
  })
  expect(nameOfNow({ source: aside, target: { policy: 'keep-highest', column: 'fee', then: { column: 'seen' } } })).toBe(
    'exclude from comparison in the source, keep the highest fee, then seen in the target',
  )
})

it('keeps what some groups have of their own, whatever the others are tried with', () => {
  const own = withOwn(aside, ['fee', 'seen'], { policy: 'keep-last' })
  expect(ownOf(own, ['seen', 'fee'])?.policy).toBe('keep-last')
  expect(ownOf(own, ['seen'])).toBeUndefined()
  expect(withOwn(withOwn(own, [], { policy: 'keep-first' }), ['seen', 'fee'], null)).toEqual({ ...aside, own: [{ differ: [], policy: 'keep-first' }] })
  expect(withOwn(own, ['seen', 'fee'], null)).toEqual(aside)
  const tried = candidates({ source: own, target: aside }, 'both', null, { source: [], target: [] })
  expect(tried[0]?.name).toBe('keep the first, otherwise in 1 case')
  expect(tried.map(({ policies }) => policies.source.own?.length ?? 0)).toEqual([1, 1, 1, 0])
})

it('says by how much a figure moves, and which policy keeps a row', () => {
  expect([moved(1200, 0), moved(3, 10), moved(4, 4), moved(4, undefined)]).toEqual(['+1,200', '−7', '', ''])
  expect(
    keptBy(
      [
        { part: 1, line: 4 },
        { part: 1, line: 0 },
      ],
      { part: 1, line: 4 },
    ),
  ).toEqual([true, null])
  expect(keptBy([{ part: 2, line: 4 }, null], { part: 1, line: 4 })).toEqual([false, null])
  expect(withChosen(withChosen(withChosen([], 'a'), 'b'), 'c')).toEqual(['b', 'c'])
  expect(withChosen(['a', 'b'], 'a')).toEqual(['b'])
})

it('puts values in order as what they look like', () => {
  expect([['9', '10', ''], ['2026-01-05'], ['2026-01-05 02:00'], ['A1', '7'], []].map(kindOf)).toEqual(['number', 'date', 'date-time', 'text', 'text'])
})
