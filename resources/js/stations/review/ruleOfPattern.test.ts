import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { ruleOfPattern } from '@/stations/review/ruleOfPattern'

const pattern = (cause: string, examples: object[] = []) => ({ source: 'holder', target: 'owner', cause, examples }) as unknown as Schemas['Pattern']
const pair: Schemas['ColumnPair'] = { id: 'pair-1', source: 'holder', target: 'owner', kind: 'text', forgives: ['case'] }

describe('a pattern as a rule of the plan', () => {
  it('forgives each of its causes of form, beside what the pair forgives already', () => {
    const rule = ruleOfPattern(pattern('spacing+case'))

    expect(rule?.label).toBe('Let spacing and capitals pass in holder')
    expect(rule?.apply(pair)).toEqual({ forgives: ['case', 'spacing'] })
  })

  it('becomes a crosswalk where each value has one translation, and changes no entry that is there', () => {
    const rule = ruleOfPattern(pattern('translated', [{ source: 'A', target: 'Active' }, { source: 'V', target: 'Vacant' }])) // prettier-ignore

    expect(rule?.apply({ ...pair, crosswalk: [{ source: 'A', target: 'Aktiv' }] })).toEqual({
      crosswalk: [
        { source: 'A', target: 'Aktiv' },
        { source: 'V', target: 'Vacant' },
      ],
    })
  })

  it('is none where the values differ: nothing but a ruling lets them pass', () => {
    for (const cause of ['none', 'truncated', 'blanked', 'spacing+truncated']) expect(ruleOfPattern(pattern(cause))).toBeNull()
  })
})
