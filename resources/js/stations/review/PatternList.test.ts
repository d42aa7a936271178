import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import type { Filter } from '@/stations/review/filter'
import PatternList from '@/stations/review/PatternList.vue'

const standing = { findings: 120, open: 120, expected: 0, defect: 0, ask: 0 }
const tally = {
  rowLists: [
    { class: null, rows: 134, slices: [] },
    { class: 'missing', rows: 14, slices: [{ filter: { class: 'missing', side: 'source', part: 2 }, words: 'part 2 of the source', rows: 11 }] },
    { class: 'changed', rows: 120, slices: [] },
  ],
  patterns: [
    { number: 3, source: 'holder_name', target: 'holder', class: 'changed', cause: 'case', sentence: 'capitals differ', cells: 120, examples: [], standing },
  ],
  forgiven: [{ number: 1, inKey: false, source: 'fee', target: 'fee', cause: 'number-form', sentence: 'same number, written differently', cells: 1204, examples: [{ source: '10.5', target: '10.50' }] }], // prettier-ignore
} as unknown as Schemas['Tally']

const list = (filter: Filter = {}) => mount(PatternList, { props: { tally, filter } })
const said = (text: string): string => text.replaceAll(/\s+/g, ' ').trim()

describe('the patterns of a tally', () => {
  it('say column, cause and cells, to the ear too', () => {
    expect(list().findAll('button').map((button) => said(button.text()))).toEqual(['All differences134', 'Missing14', 'part 2 of the source, 11', 'Changed120', 'All cells that differ120', 'holder_name → holder: capitals differ, 120 cells', 'fee: same number, written differently, 1,204 cells']) // prettier-ignore
  })

  it('are chosen by what the address will say', async () => {
    const wrapper = list()
    await wrapper.findAll('button')[5]?.trigger('click')
    await wrapper.findAll('button')[2]?.trigger('click')
    await wrapper.findAll('button')[1]?.trigger('click')
    await wrapper.findAll('button')[0]?.trigger('click')
    expect(wrapper.emitted('choose')).toEqual([[{ pattern: 3 }], [{ class: 'missing', side: 'source', part: 2 }], [{ class: 'missing' }], [{ of: 'rows' }]])
  })

  it('show which one is looked at', () => {
    const pressed = list({ pattern: 3 })
      .findAll('button')
      .map((button) => button.attributes('aria-pressed'))
    expect(pressed).toEqual(['false', 'false', 'false', 'false', 'false', 'true', 'false'])
  })

  it('tell a class from a part of it', () => {
    const pressed = list({ class: 'missing', side: 'source', part: 2 })
      .findAll('button')
      .map((button) => button.attributes('aria-pressed'))
    expect(pressed).toEqual(['false', 'false', 'true', 'false', 'false', 'false', 'false'])
  })

  it('lead to the cells of what a rule let pass', async () => {
    const wrapper = list()
    await wrapper.findAll('button')[6]?.trigger('click')
    expect(wrapper.emitted('chooseForgiven')).toEqual([[1]])
  })
})
