import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import FlagBox from '@/stations/match/FlagBox.vue'

const box = (props: Partial<InstanceType<typeof FlagBox>['$props']> = {}) =>
  mount(FlagBox, { props: { side: 'target', name: 'loaded_at', isOn: false, mayWork: true, ...props } })

describe('the flag of a column that nobody compares', () => {
  it('says which column of which side it is about, and flags it', async () => {
    const flag = box()
    expect(flag.get('input').attributes('aria-label')).toBe('loaded_at of the target is sensitive')
    await flag.get('input').setValue(true)
    expect(flag.emitted('flag')).toEqual([[true]])
  })

  it('is shown, and stays as it is, to who may not work on the plan', () => {
    const input = box({ isOn: true, mayWork: false }).get('input').element as HTMLInputElement
    expect([input.checked, input.disabled]).toEqual([true, true])
  })
})
