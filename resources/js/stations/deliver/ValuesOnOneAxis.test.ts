import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import ValuesOnOneAxis from '@/stations/deliver/ValuesOnOneAxis.vue'

const axis = (bins: { label: string; source: number; target: number }[]) =>
  mount(ValuesOnOneAxis, { props: { row: { source: null, target: null, by: 'value', bins, looksChanged: false } as Schemas['ProfileRow'] } })
const heights = (wrapper: ReturnType<typeof axis>, side: string): number[] => wrapper.findAll(`rect.${side}`).map((bar) => Number(bar.attributes('height')))

describe('values above and below the line', () => {
  it('share one scale, and the few are still seen', () => {
    const wrapper = axis([
      { label: 'A', source: 0.5, target: 0.25 },
      { label: 'B', source: 0.0001, target: 0 },
    ])

    expect(heights(wrapper, 'src')).toEqual([18, 0.7])
    expect(heights(wrapper, 'tgt')).toEqual([9, 0])
  })

  it('stand on the line and hang from it', () => {
    const [above] = axis([{ label: 'A', source: 0.5, target: 0.25 }]).findAll('rect.src')
    const [below] = axis([{ label: 'A', source: 0.5, target: 0.25 }]).findAll('rect.tgt')

    expect([above?.attributes('y'), below?.attributes('y')]).toEqual(['0', '19'])
  })

  it('say in words where both are furthest apart', () => {
    expect(
      axis([
        { label: 'A', source: 0.5, target: 0.45 },
        { label: 'V', source: 0, target: 0.2 },
      ]).attributes('aria-label'),
    ).toBe(
      // prettier-ignore
      'Values by value. Furthest apart at V: source 0.0 %, target 20.0 %',
    )
    expect(axis([]).attributes('aria-label')).toBe('no values')
  })
})
