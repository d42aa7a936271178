import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { labelOf, ruleOf } from '@/stations/review/ruleOfPattern'

type Offer = Schemas['PatternRules']['items'][number]
const pair: Schemas['ColumnPair'] = { id: 'pair-1', source: 'holder', target: 'owner', kind: 'text', forgives: ['case'] }
const offer = (rule: Offer['rule']) => ({ kind: 'forgives', settles: 1, rule }) as Offer

describe('a pattern as a rule of the plan', () => {
  it('forgives each of its causes of form, beside what the pair forgives already', () => {
    const forms = offer({ forgives: ['spacing', 'case'] })
    expect(labelOf(forms)).toBe('let spacing and capitals pass')
    expect(ruleOf(forms).apply(pair)).toEqual({ forgives: ['case', 'spacing'] })
  })

  it('becomes a crosswalk of all value pairs, and changes no entry that is there', () => {
    const crosswalk = offer({ crosswalk: [{ source: 'A', target: 'Active' }, { source: 'V', target: 'Vacant' }] }) // prettier-ignore
    expect(labelOf(crosswalk)).toBe('a crosswalk of 2 value pairs')
    expect(ruleOf(crosswalk).apply({ ...pair, crosswalk: [{ source: 'A', target: 'Aktiv' }] }).crosswalk).toEqual([
      { source: 'A', target: 'Aktiv' },
      { source: 'V', target: 'Vacant' },
    ])
  })

  it('declares a rounding or a tolerance', () => {
    expect(labelOf(offer({ rounding: { places: 1, mode: 'half-even' } }))).toBe('rounded to 1 decimal, halves to the even digit')
    const tolerance = { by: 'absolute', most: '0.01' } as const
    expect(labelOf(offer({ tolerance }))).toBe('within 0.01')
    expect(ruleOf(offer({ tolerance })).apply(pair)).toEqual({ tolerance })
  })
})
