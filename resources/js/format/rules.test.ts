import { describe, expect, it } from 'vitest'
import { formCauses, kinds, passes } from '@/format/rules'

describe('what a pair lets pass, in short words', () => {
  it('names forms, tolerance, rounding and crosswalk in the order in which they are tried', () => {
    expect(
      passes({
        forgives: ['spacing', 'number-form'],
        tolerance: { by: 'absolute', most: '0.01' },
        rounding: { places: 2, mode: 'cut' },
        crosswalk: [{ source: 'A', target: 'Active' }],
      }),
    ).toEqual(['spacing', 'number form', 'within 0.01', 'rounded to 2 places', 'crosswalk: 1'])
  })

  it('says of what a tolerance is a part, and in which unit it counts', () => {
    expect(passes({ tolerance: { by: 'relative', most: '0.1' } })).toEqual(['within 0.1 of the larger'])
    expect(passes({ tolerance: { by: 'days', most: '2' } })).toEqual(['within 2 days'])
    expect(passes({})).toEqual([])
  })

  it('a kind forgives causes of form alone', () => {
    const known = formCauses.map(({ cause }) => cause)
    expect(kinds.flatMap(({ forgives }) => forgives).every((cause) => known.includes(cause))).toBe(true)
    expect(kinds.find(({ kind }) => kind === 'text')?.forgives).toEqual([])
  })
})
