import { mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import ClaimList from '@/stations/deliver/ClaimList.vue'
import ColumnEdges from '@/stations/deliver/ColumnEdges.vue'
import DemandForm from '@/stations/deliver/DemandForm.vue'
import { changeSentence } from '@/stations/deliver/changeSentence'
import TrailerCells from '@/stations/deliver/TrailerCells.vue'

const global = { plugins: [ElementPlus, VueQueryPlugin] }

describe('edges of fixed-width columns', () => {
  const edges = (starts: number[]) => mount(ColumnEdges, { props: { lines: ['KB 014 fee'], starts, isBusy: false }, global })

  it('are moved and taken away with the keys', async () => {
    const wrapper = edges([0, 3, 7])
    const sliders = wrapper.findAll('[role="slider"]')
    expect(sliders.map((slider) => slider.attributes('aria-valuetext'))).toEqual(['3 characters', '7 characters'])
    await sliders[0]?.trigger('keydown', { key: 'ArrowRight' })
    await sliders[1]?.trigger('keydown', { key: 'Delete' })

    expect(wrapper.emitted('change')).toEqual([[[0, 4, 7]], [[0, 3]]])
  })

  it('never leave the line, and two that meet become one', async () => {
    const wrapper = edges([0, 1, 2])
    const [first, second] = wrapper.findAll('[role="slider"]')
    await first?.trigger('keydown', { key: 'ArrowLeft' })
    await second?.trigger('keydown', { key: 'ArrowLeft' })

    expect(wrapper.emitted('change')).toEqual([[[0, 1]]])
  })

  it('are set by a click between two characters, and taken away by another', async () => {
    const wrapper = edges([0, 10])
    const text = wrapper.find('.text')
    vi.spyOn(text.element, 'getBoundingClientRect').mockReturnValue({ left: 0, width: 200 } as DOMRect)
    await text.trigger('click', { clientX: 52 })
    await text.trigger('click', { clientX: 101 })

    expect(wrapper.emitted('change')).toEqual([[[0, 5, 10]], [[0]]])
  })
})

describe('what the target demands', () => {
  const form = (demand: Schemas['Demand'], counted: object | null = null) =>
    mount(DemandForm, {
      props: { column: 'owner', demand, misfits: { isWaiting: false, problem: null, counted } as Schemas['Misfits'], mayWork: true },
      global,
    })

  it('is set part by part, and a part that says nothing is not there', async () => {
    const wrapper = form({ required: true, mostCharacters: 20 })
    const field = wrapper.find('input[aria-label="at most characters of owner"]')
    await field.setValue('12')
    await field.setValue('')
    await wrapper.find('textarea').setValue(' KB \n\nLM\nKB')

    expect(wrapper.emitted('demand')).toEqual([
      [{ required: true, mostCharacters: 12 }],
      [{ required: true }],
      [{ required: true, mostCharacters: 20, allowed: ['KB', 'LM'] }],
    ])
  })

  it('says how many values of the source will not fit, and which', () => {
    const unmet = [{ part: 'mostCharacters', count: 1_204, examples: [{ part: 1, line: 7, value: 'Ezekiel Thornøy' }] }]
    const text = form({ mostCharacters: 5 }, { rows: 2_000, columns: [{ source: 'holder', target: 'owner', unmet }] }).text()

    expect(text).toContain('1,204 of holder will not fit: longer than the characters allowed')
    expect(text).toContain('line 7 Ezekiel Thornøy')
    expect(form({}, { rows: 2, columns: [{ source: 'holder', target: 'owner', unmet: [] }] }).text()).toContain('Every value of holder fits.')
  })
})

describe('what the deliverer says', () => {
  const claim = (more: object) => ({
    about: 'rows',
    column: null,
    from: 'by hand',
    claimed: '1204',
    arrived: '1200',
    unreadable: 0,
    holds: false,
    explanation: null,
    ...more,
  })
  const list = (...claims: object[]) => mount(ClaimList, { props: { delivery: { id: 1, claims } as unknown as Schemas['Delivery'], mayWork: true }, global })

  it('stands out where it does not hold, until somebody has explained it', () => {
    const explained = { explanation: { text: 'four were closed', by: 'Ruth Osei', at: '2026-11-25T10:00:00Z' } }
    const wrapper = list(claim({}), claim(explained), claim({ arrived: '1204', holds: true }))

    expect(wrapper.findAll('[role="alert"]').map((alert) => alert.text())).toEqual(['rows: 1,200 arrived, and the deliverer says 1,204'])
    expect(wrapper.text()).toContain('“four were closed” Ruth Osei')
    expect(wrapper.text()).toContain('rows: 1,204, as the deliverer says')
  })

  it('names where a total comes from, and what it could not add', () => {
    const sum = claim({ about: 'sum', column: 'fee', from: 'the last record of fees.csv', claimed: '10.50', arrived: '9.5', unreadable: 2 })

    expect(list(sum).text()).toContain('sum of fee: 9.5 arrived, and the last record of fees.csv says 10.50 (2 values in it no number)')
  })

  it('is taken from the cells of a trailer, each of which says one thing', async () => {
    const wrapper = mount(TrailerCells, {
      props: { trailer: { cells: ['TRL', '2', '40.10'] }, columns: ['basin', 'fee'], meaning: { rows: 2, totals: [{ column: 'fee', cell: 3 }] } },
      global,
    })
    const choices = wrapper.findAllComponents({ name: 'ElSelect' })
    expect(choices.map((choice) => choice.props('modelValue'))).toEqual(['#nothing', '#rows', 'sum fee'])
    await choices[2]?.vm.$emit('update:modelValue', '#rows')
    await choices[0]?.vm.$emit('update:modelValue', 'sum fee')

    expect(wrapper.emitted('change')).toEqual([[{ rows: 3, totals: [] }], [{ rows: 2, totals: [{ column: 'fee', cell: 1 }] }]])
  })
})

describe('what changed since a delivery', () => {
  it('is said of rows, by their key where it is known, and then of columns', () => {
    const rows = { same: 900, changed: 0, gone: 0, new: 0 }
    expect(changeSentence({ since: 2, rows, key: [], changes: [] })).toBe('Since delivery 2: the same 900 rows.')
    expect(changeSentence({ since: 2, rows: { ...rows, gone: 1, new: 2 }, key: [], changes: [] })).toBe('Since delivery 2: 2 rows new, 1 gone, 900 the same.')
    expect(changeSentence({ since: 2, rows: null, key: [], changes: ['column fee is new'] })).toBe(
      'Since delivery 2: no column stands in both, column fee is new.',
    )
    const many = Array.from({ length: 11 }, (_, nth) => `column c${nth} is new`)
    expect(changeSentence({ since: 2, rows, key: [], changes: many })).toContain('column c7 is new and 3 more.')
  })
})
