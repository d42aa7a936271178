import { VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { expect, it, vi } from 'vitest'
import LookUpProposals from '@/parts/LookUpProposals.vue'

const found = {
  reference: 'Basins',
  on: [{ column: 'basin', reference: 'code' }],
  columns: ['id', 'name', 'since'],
  rows: 1000,
  found: 940,
  several: 0,
  rungs: [{ causes: ['case'], brings: 40, several: 2, left: 20 }],
}
vi.mock('@/api/client', () => ({ answer: (asked: unknown) => asked, api: { POST: () => Promise.resolve({ items: [found] }) } }))

const opened = async (step: object) => {
  const asked = { side: 'source' as const, preparation: [], chosen: 'x' }
  const wrapper = mount(LookUpProposals, {
    props: { dataset: 1, asked, step: { id: 'x', kind: 'look-up', ...step }, columns: ['basin', 'name'] },
    global: { plugins: [ElementPlus, VueQueryPlugin] },
  })
  await flushPromises()
  return wrapper
}

it('takes reference, columns and what a record is called in one press, under a name that is free', async () => {
  const wrapper = await opened({ reference: 'Fees' })
  expect(wrapper.text()).toContain('940 of 1,000 rows find a record of Basins by basin = code')
  await wrapper.get('button').trigger('click')
  expect(wrapper.emitted('change')).toEqual([[{ reference: 'Basins', on: found.on, take: [{ reference: 'name', into: 'Basins name' }] }]])
})

it('says what of form keeps records apart once it is taken, and forgives it', async () => {
  const wrapper = await opened({ reference: 'Basins', on: found.on, forgives: ['spacing'] })
  expect(wrapper.text()).toContain('40 more, 20 left; 2 rows would find several')
  await wrapper
    .findAll('button')
    .find((button) => button.text() === 'Forgive')
    ?.trigger('click')
  expect(wrapper.emitted('change')).toEqual([[{ forgives: ['spacing', 'case'] }]])
})
