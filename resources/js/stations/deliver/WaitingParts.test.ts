import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { useServer } from '@/testing/server'
import WaitingParts from '@/stations/deliver/WaitingParts.vue'

const { POST } = useServer()
beforeEach(() => {
  POST.mockResolvedValue({})
})

const receipt = (id: string, columns: string[], more: object = {}) =>
  ({
    id,
    side: 'source',
    fileName: id,
    bytes: 1_200,
    receivedBytes: 1_200,
    state: 'received',
    recordsRead: 0,
    preview: {
      format: { kind: 'json-lines' },
      reasons: { kind: 'JSON Lines' },
      columns,
      rows: [columns.map(() => 'x')],
      sameAs: null,
      trailer: null,
      beginning: [],
    },
    ...more,
  }) as unknown as Schemas['Receipt']
const parts = (...receipts: Schemas['Receipt'][]) =>
  mount(WaitingParts, {
    props: { receipts, dataset: 1, side: 'source', isBusy: false, isSending: false, isReading: false },
    global: { plugins: [ElementPlus, VueQueryPlugin] },
  })
const press = async (wrapper: ReturnType<typeof parts>, name: string): Promise<void> => {
  const button = wrapper.findAll('button').find((one) => one.text().trim() === name)
  if (button === undefined) throw new Error(`no button ${name}: ${wrapper.text()}`)
  await button.trigger('click')
}
const nothingSaid = { partLabels: {}, partLabelColumn: null, asOf: null, rowsClaimed: null, totals: [], trailers: {} }

describe('files that wait to be taken', () => {
  it('one file is a delivery', async () => {
    const wrapper = parts(receipt('north.jsonl', ['basin']))
    await press(wrapper, 'Accept this delivery')

    expect(wrapper.emitted('take')).toEqual([[nothingSaid]])
  })

  it('several are taken together, and columns that one lacks are named before', async () => {
    const wrapper = parts(receipt('north.jsonl', ['basin', 'fee']), receipt('south.jsonl', ['basin', 'note']))
    expect(wrapper.text()).toContain('has no note')
    expect(wrapper.text()).toContain('has no fee')
    await press(wrapper, 'Accept these 2 parts as one delivery')

    expect(wrapper.emitted('take')).toEqual([[nothingSaid]])
  })

  it('keeps where rows came from under labels that can be written', async () => {
    const wrapper = parts(receipt('north.jsonl', ['basin']), receipt('south.jsonl', ['basin']))
    await wrapper.findComponent({ name: 'ElCheckbox' }).vm.$emit('update:modelValue', true)
    await wrapper.find('input[aria-label="Part label of south.jsonl"]').setValue('south of the lock')
    await wrapper.find('input[aria-label="Row count stated by the sender"]').setValue('1,204')
    await press(wrapper, 'Accept these 2 parts as one delivery')

    expect(wrapper.emitted('take')).toEqual([
      [{ ...nothingSaid, partLabels: { 'south.jsonl': 'south of the lock' }, partLabelColumn: 'part', rowsClaimed: 1_204 }],
    ])
  })

  it('shows the first rows of the file that is looked at', async () => {
    const wrapper = parts(receipt('north.jsonl', ['basin']), receipt('south.jsonl', ['berth']))
    expect(wrapper.find('th').text()).toBe('basin')
    await press(wrapper, 'south.jsonl')

    expect(wrapper.find('th').text()).toBe('berth')
  })

  it('warns of the same bytes', () => {
    const twice = receipt('copy.jsonl', ['basin'])
    const wrapper = parts({ ...twice, preview: { ...twice.preview, sameAs: 'byte for byte the same as old.csv of delivery 1' } } as Schemas['Receipt'])

    expect(wrapper.find('[role="alert"]').text()).toBe('This file is byte for byte the same as old.csv of delivery 1. Taken twice, its rows count twice.')
  })

  it('tells how much of each file is here', () => {
    expect(parts(receipt('north.jsonl', [], { state: 'receiving', receivedBytes: 300, preview: null })).text()).toContain(
      'north.jsonl: 300 bytes of 1.2 KB received',
    )
  })

  it('says what they would change, and which of them share rows, before they are taken', async () => {
    POST.mockResolvedValue({
      overlaps: [{ one: 'north.jsonl', other: 'south.jsonl', rows: 40, of: 50 }],
      changes: { since: 3, rows: { same: 900, changed: 7, gone: 2, new: 11 }, key: ['basin', 'berth'], changes: ['column note is new'] },
    })
    const wrapper = parts(receipt('north.jsonl', ['basin']), receipt('south.jsonl', ['basin']))
    await flushPromises()
    const text = wrapper.text()

    expect(text).toContain('40 rows of north.jsonl and south.jsonl are the same, of 50 rows.')
    expect(text).toContain('Since delivery 3: 11 rows new, 2 gone, 7 changed (by basin + berth), 900 the same, column note is new.')
  })

  it('takes the figures of a trailer with it', async () => {
    const one = receipt('north.csv', ['basin', 'fee'])
    const preview = { ...one.preview, format: { kind: 'delimited', skipBelow: 1 }, trailer: { cells: ['TRL', '2', '40.10'], isLikely: true, rows: 2 } }
    const wrapper = parts({ ...one, preview } as Schemas['Receipt'])
    wrapper.findComponent({ name: 'FoundPreview' }).vm.$emit('mean', { rows: 2, totals: [] })
    await wrapper.vm.$nextTick()
    await wrapper.findAllComponents({ name: 'TrailerCells' })[0]?.vm.$emit('change', { rows: 2, totals: [{ column: 'fee', cell: 3 }] })
    await press(wrapper, 'Accept this delivery')

    expect(wrapper.emitted('take')).toEqual([[{ ...nothingSaid, trailers: { 'north.csv': { rows: 2, totals: [{ column: 'fee', cell: 3 }] } } }]])
  })
})
