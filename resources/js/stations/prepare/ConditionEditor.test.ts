import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import ConditionEditor from '@/stations/prepare/ConditionEditor.vue'

type Condition = Schemas['Condition']

const editor = (condition: Condition) =>
  mount(ConditionEditor, { props: { condition, columns: ['basin', 'paid'], mayWork: true }, global: { plugins: [ElementPlus] } })
const last = (wrapper: ReturnType<typeof editor>): Condition => wrapper.emitted('update')?.at(-1)?.[0] as Condition
const select = (wrapper: ReturnType<typeof editor>, label: string) => {
  const found = wrapper.findAllComponents({ name: 'ElSelect' }).find((one) => one.attributes('aria-label') === label || one.props('ariaLabel') === label)
  if (found === undefined) throw new Error(`no select ${label}`)
  return found
}

describe('what is asked of a row', () => {
  it('one test stays one; a second makes all of both', async () => {
    const wrapper = editor({ column: 'basin', test: 'is-blank' })
    await wrapper.findAll('button').at(-1)?.trigger('click')

    expect(last(wrapper)).toEqual({ all: [{ column: 'basin', test: 'is-blank' }, { column: 'basin', test: 'is-blank' }] }) // prettier-ignore
  })

  it('all becomes any, with the same tests', async () => {
    const parts = [{ column: 'basin', test: 'is-blank' }, { column: 'paid', test: 'is-blank' }] // prettier-ignore
    const wrapper = editor({ all: parts })
    await select(wrapper, 'All or any').vm.$emit('update:modelValue', 'any')

    expect(last(wrapper)).toEqual({ any: parts })
  })

  it('another test keeps what fits it and drops what does not', async () => {
    const wrapper = editor({ column: 'basin', test: 'is', value: 'KB' })
    await select(wrapper, 'Test of condition 1').vm.$emit('update:modelValue', 'contains')
    expect(last(wrapper)).toEqual({ column: 'basin', test: 'contains', value: 'KB' })

    await select(wrapper, 'Test of condition 1').vm.$emit('update:modelValue', 'is-one-of')
    expect(last(wrapper)).toEqual({ column: 'basin', test: 'is-one-of', values: ['KB'] })

    await select(wrapper, 'Test of condition 1').vm.$emit('update:modelValue', 'is-blank')
    expect(last(wrapper)).toEqual({ column: 'basin', test: 'is-blank' })
  })

  it('a value can be left to each tally, by the name of a parameter', async () => {
    const wrapper = editor({ column: 'paid', test: 'after', value: '2027-01-01' })
    await wrapper.findComponent({ name: 'ElCheckbox' }).vm.$emit('update:modelValue', true)

    expect(last(wrapper)).toEqual({ column: 'paid', test: 'after', parameter: 'cut-off date' })
  })

  it('what is nested deeper is shown and kept', async () => {
    const nested = { any: [{ column: 'basin', test: 'is-blank' }, { column: 'paid', test: 'is-blank' }] } // prettier-ignore
    const wrapper = editor({ all: [nested, { column: 'basin', test: 'is-blank' }] })
    expect(wrapper.text()).toContain('several conditions, nested')

    await select(wrapper, 'Test of condition 2').vm.$emit('update:modelValue', 'is-not-blank')
    expect(last(wrapper)).toEqual({ all: [nested, { column: 'basin', test: 'is-not-blank' }] })
  })
})
