import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import BeforeAfter from '@/stations/prepare/BeforeAfter.vue'

const shown = (
  columnsBefore: string[],
  columnsAfter: string[],
  rows: { part?: number; line: number; before: string[]; with?: { part: number; line: number; before: string[] }[]; withRows?: number; after: string[][] }[],
) =>
  mount(BeforeAfter, {
    props: { side: 'source', examples: { columnsBefore, columnsAfter, rows: rows.map((row) => ({ part: 1, with: [], withRows: 0, ...row })) } },
  })
const cells = (wrapper: ReturnType<typeof shown>, row = 0): string[] =>
  wrapper
    .findAll('tbody tr')
    [row]?.findAll('td')
    .map((cell) => cell.text().replaceAll(/\s+/g, ' ')) ?? []

describe('rows before and after a step', () => {
  it('shows only the cells that the step alters', () => {
    expect(cells(shown(['basin', 'fee'], ['basin', 'fee'], [{ line: 7, before: ['KB', ' 1 '], after: [['KB', '1']] }]))).toEqual(['7fee 1', 'fee 1'])
  })

  it('a row that becomes several is shown with each of them', () => {
    const wrapper = shown(['basin', 'apr', 'may'], ['basin', 'month', 'charge'], [{ line: 2, before: ['KB', '1', ''], after: [['KB', 'apr', '1'], ['KB', 'may', '']] }]) // prettier-ignore

    expect(cells(wrapper)[1]).toBe('month aprcharge 1month maycharge blank')
    expect(cells(wrapper)[0]).toBe('2apr 1may blank')
  })

  it('a row that is left out says so, and rows of later parts say which', () => {
    expect(cells(shown(['basin'], ['basin'], [{ part: 2, line: 1_204, before: [''], after: [] }]))).toEqual(['2: 1,204basin blank', 'left out'])
  })

  it('rows that are put together stand beside the one that they become', () => {
    const together = { line: 2, before: ['KB', '1'], with: [{ part: 1, line: 5, before: ['KB', '4'] }], withRows: 9, after: [['KB', '45']] }

    expect(cells(shown(['basin', 'fee'], ['basin', 'sum'], [together]))).toEqual(['2basin KBfee 15basin KBfee 4and 8 rows more', 'basin KBsum 45'])
  })

  it('says in one sentence that nothing is changed', () => {
    const wrapper = shown(['basin'], ['basin'], [{ line: 2, before: ['KB'], after: [['KB']] }])

    expect(wrapper.text()).toContain('None of the sample rows is changed by this step.')
    expect(wrapper.findAll('table')).toHaveLength(0)
  })
})
