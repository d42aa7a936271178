import { mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import SideStream from '@/stations/prepare/SideStream.vue'

const figures = { in: 10, made: 0, condensed: 0, leftOut: 0, out: 10, altered: 0, notes: [] }
const steps = [
  { id: 'a', kind: 'leave-out-blank-rows', reason: 'the totals', answersFor: 'Ruth Osei' },
  { id: 'b', kind: 'crosswalk' },
  { id: 'c', kind: 'leave-out-columns', off: true },
  { id: 'd', kind: 'leave-out-columns' },
]
const trial = {
  rows: 10,
  columns: ['basin', 'fee'],
  sampleRows: 10,
  isWhole: true,
  isBeginning: false,
  readyRows: 8,
  ready: [],
  steps: [
    { id: 'a', sentence: 'Leave out rows with nothing in any column', problem: null, figures: { ...figures, leftOut: 2, out: 8 } },
    {
      id: 'b',
      sentence: 'Crosswalk basin',
      problem: null,
      figures: { ...figures, in: 8, out: 8, altered: 1, notes: [{ what: 'without entry', count: 1_204, values: [] }] },
    },
    { id: 'c', sentence: 'Leave out the column fee', problem: null, figures: null },
    { id: 'd', sentence: 'Leave out the column fees', problem: 'There is no column "fees" at this step. The nearest is "fee".', figures: null },
  ],
} as unknown as Schemas['PreparationTrial']

const stream = (more: Partial<InstanceType<typeof SideStream>['$props']> = {}) =>
  mount(SideStream, {
    props: {
      side: 'source',
      label: 'Old register',
      course: { id: 7, mayWork: true, source: { fileName: 'old.csv' } } as unknown as Schemas['Course'],
      steps,
      trial,
      error: null,
      most: 10,
      chosen: null,
      ...more,
    },
    global: { plugins: [ElementPlus, VueQueryPlugin] },
  })
const said = (text: string): string => text.replaceAll(/\s+/g, ' ').trim()

describe('a side as a stream', () => {
  it('says of each step what it does, what became of rows and cells, or what is wrong', () => {
    expect(
      stream()
        .findAll('.step')
        .map((step) => said(step.text())),
    ).toEqual([
      'Leave out rows with nothing in any column2 rows left outthe totals, Ruth Osei',
      'Crosswalk basin1 cell altered · 1,204 without entry',
      'Leave out the column feeswitched off',
      'Leave out the column feesThere is no column "fees" at this step. The nearest is "fee".',
    ])
  })

  it('counts the rows between the steps', () => {
    expect(
      stream()
        .findAll('.band')
        .map((band) => said(band.text())),
    ).toEqual(['10 rows, 2 columns', '8 rows', '8 rows', '8 rows', '8 rows ready to match'])
  })

  it('moves a step by keys and by hand', async () => {
    const wrapper = stream()
    const [first, second] = wrapper.findAll('.step')
    await second?.trigger('keydown', { key: 'ArrowUp', altKey: true })
    await second?.trigger('keydown', { key: 'ArrowUp' })
    await first?.trigger('dragstart')
    await wrapper.findAll('li')[2]?.trigger('drop')

    expect(wrapper.emitted('move')).toEqual([['b', 0], ['a', 1]]) // prettier-ignore
  })

  it('is looked at by a press, and left by another', async () => {
    const wrapper = stream({ chosen: 'b' })
    await wrapper.findAll('.step')[0]?.trigger('click')
    await wrapper.findAll('.step')[1]?.trigger('click')

    expect(wrapper.emitted('choose')).toEqual([['a'], [null]])
  })

  it('says that figures are those of a sample, and offers all rows', () => {
    const wrapper = stream({ trial: { ...trial, isWhole: false, rows: 60_000, sampleRows: 5_000 } })

    expect(said(wrapper.text())).toContain('Tried on 5,000 rows drawn across the delivery. Run on all 60,000 rows')
  })

  it('offers nothing to change to whom may not', () => {
    const wrapper = stream({ course: { id: 7, mayWork: false, source: { fileName: 'old.csv' } } as unknown as Schemas['Course'] })

    expect(wrapper.findAllComponents({ name: 'ElSelect' })).toHaveLength(0)
    expect(wrapper.find('.step').attributes('draggable')).toBe('false')
  })

  it('of a reference speaks of records, and has nothing of what belongs to a side', () => {
    const text = said(stream({ side: 'reference', label: 'Reference Basins' }).text())
    expect(text).toContain('10 records, 2 columns')
    expect(text).toContain('8 records to look up from')
    expect(text).not.toMatch(/old\.csv|ready to match|CSV/)
    expect(said(stream().text())).toMatch(/old\.csv.*ready to match.*CSV/)
  })
})
