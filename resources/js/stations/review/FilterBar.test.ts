import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import type { Filter } from '@/stations/review/filter'
import FilterBar from '@/stations/review/FilterBar.vue'
import { useServer } from '@/testing/server'

const { GET, POST } = useServer()

const tally = { id: 3, datasetId: 9, keyColumns: ['basin', 'berth'], patterns: [] } as unknown as Schemas['Tally']
function bar(filter: Filter = {}, mayKeep = true) {
  return mount(FilterBar, {
    props: { tally, masked: [], filter, mayKeep, columns: ['fee'], beside: [], saysWhy: false },
    global: { plugins: [ElementPlus, VueQueryPlugin], stubs: { ElSelect: true } },
  })
}
async function write(wrapper: ReturnType<typeof bar>, label: string, text: string): Promise<void> {
  await wrapper.find(`[aria-label="${label}"]`).setValue(text)
}
const press = (wrapper: ReturnType<typeof bar>, words: string) =>
  wrapper
    .findAll('button')
    .find((button) => button.text() === words)
    ?.trigger('click')

describe('the filter', () => {
  beforeEach(() => {
    vi.resetAllMocks()
    GET.mockResolvedValue({ items: [{ id: 5, name: 'Blank fees', filter: { of: 'cells', source: '' }, by: 'Tove Lindqvist' }] })
  })

  it('narrows by a part of the key, and widens when that is emptied', async () => {
    const wrapper = bar({ key: 'KB', keyColumn: 2 })
    await write(wrapper, 'berth is exactly', '014')
    await write(wrapper, 'berth is exactly', '')

    expect(wrapper.emitted('narrow')).toEqual([[{ key: '014', keyColumn: 2 }]])
    expect(wrapper.emitted('widen')).toEqual([[['key', 'keyColumn']]])
  })

  it('says each term, and takes away one or all', async () => {
    const wrapper = bar({ ruling: 'open', key: 'KB', keyColumn: 1, text: 'weeps' })
    expect(wrapper.findAll('.term').map((term) => term.text().replaceAll(/\s+/g, ' '))).toEqual(['basin is KB×', 'open ×', 'with the text weeps×'])
    await wrapper.find('[aria-label="Without: open"]').trigger('click')
    await press(wrapper, 'Clear')

    expect(wrapper.emitted('widen')).toEqual([[['ruling']], [['key', 'keyColumn', 'ruling', 'text']]])
  })

  it('is kept under a name, and found by everybody', async () => {
    POST.mockResolvedValue({ id: 6 })
    const wrapper = bar({ text: 'weeps' })
    await flushPromises()
    await press(wrapper, 'Saved filters (1)')
    await press(wrapper, 'Blank fees')
    await wrapper.find('[aria-label="Name of this filter"]').setValue('Walls that weep')
    await wrapper.find('form').trigger('submit')
    await flushPromises()

    expect(wrapper.emitted('set')).toEqual([[{ of: 'cells', source: '' }]])
    expect(POST).toHaveBeenCalledWith('/datasets/{dataset}/kept-filters', {
      params: { path: { dataset: 9 } },
      body: { name: 'Walls that weep', filter: { text: 'weeps' } },
    })
  })

  it('is kept by nobody who may not rule', async () => {
    const wrapper = bar({ text: 'weeps' }, false)
    await flushPromises()
    await press(wrapper, 'Kept (1)')

    expect(wrapper.find('form').exists()).toBe(false)
    expect(wrapper.text()).not.toContain('Remove')
  })
})
