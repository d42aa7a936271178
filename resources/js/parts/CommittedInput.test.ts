import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import CommittedInput from '@/parts/CommittedInput.vue'

const field = (value: string) => mount(CommittedInput, { props: { value }, global: { plugins: [ElementPlus] } })

describe('a field that counts when it is left', () => {
  it('keeps what is typed and tells it once', async () => {
    const wrapper = field('0.01')
    const input = wrapper.find('input')
    for (const text of ['0', '0.', '0.5']) {
      await input.setValue(text)
      await nextTick()
      expect(input.element.value).toBe(text)
    }
    // setValue leaves the field each time, as test utils do: only what differs is told.
    expect(wrapper.emitted('commit')?.at(-1)).toEqual(['0.5'])
  })

  it('tells nothing when nothing was changed', async () => {
    const wrapper = field('KB')
    await wrapper.find('input').trigger('change')

    expect(wrapper.emitted('commit')).toBeUndefined()
  })

  it('follows what holds', async () => {
    const wrapper = field('KB')
    await wrapper.setProps({ value: 'LM' })

    expect(wrapper.find('input').element.value).toBe('LM')
  })
})
