import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import type { Schemas } from '@/api/client'
import RecordPane from '@/stations/review/RecordPane.vue'

const course = { migration: { sourceLabel: 'Old register', targetLabel: 'New register' } } as unknown as Schemas['Course']
const finding = (sequence: number) => ({ sequence, pattern: 1, class: 'changed', cause: 'case', sentence: 'capitals differ', decision: 'open', earlier: null })
const field = (role: string, source: string, value: string, target = value, found: object | null = null) => ({
  role,
  source,
  target: source,
  sourceValue: value,
  targetValue: target,
  finding: found,
})
const record = (more: object, fields: object[]) =>
  ({
    sequence: 7,
    class: 'changed',
    side: null,
    key: 'KB,77',
    sourceRows: 1,
    targetRows: 1,
    sourceLine: 78,
    targetLine: 1204,
    sourceFile: null,
    targetFile: null,
    earlier: null,
    remark: null,
    refusal: null,
    fields,
    rulings: [],
    ...more,
  }) as unknown as Schemas['Record']
const pane = (shown: Schemas['Record'], cell: number | null = null) =>
  mount(RecordPane, { props: { record: shown, error: null, isLoading: false, course, tally: 2, tallyId: 7, cell }, global: { plugins: [ElementPlus] } })
const attributes = Array.from({ length: 30 }, (_, nth) => field('compared', `attribute_${nth}`, `${nth}`))

describe('the whole record', () => {
  beforeAll(() => {
    Element.prototype.scrollIntoView = vi.fn()
  })

  it('says where its row stands on each side, and how much of it differs', () => {
    const wrapper = pane(record({}, [field('key', 'basin', 'KB'), field('compared', 'holder', 'Osei', 'OSEI', finding(4)), field('compared', 'fee', '12')]))

    expect(wrapper.text()).toContain('1 of 2 cells differ')
    expect(wrapper.text()).toContain('old register line 78, new register line 1,204')
    expect(wrapper.text()).toContain('capitals differ')
  })

  it('says who decided what and why, of the row and of each cell', () => {
    const act = { id: 12, scope: 'cell', target: '4', decision: 'defect', reason: 'cut by the loader', ticket: 'WM-18', asked: null, person: 'Tove Lindqvist', at: '2026-11-29T04:12:00Z', tally: 1, findings: 1 } // prettier-ignore
    const ruled = { ...finding(4), decision: 'defect', rulingId: 12 }
    const text = pane(record({ rulings: [act] }, [field('compared', 'holder', 'Osei', 'OSEI', ruled)])).text()

    expect(text).toMatch(/Defect\s+Tove Lindqvist, .*, in tally 1: cut by the loader; WM-18/)
  })

  it('narrows the list down to what has the same part of the key', async () => {
    const wrapper = pane(record({}, [field('key', 'basin', 'KB'), field('key', 'berth', '77')]))
    await wrapper.findAll('.only')[1]?.trigger('click')

    expect(wrapper.emitted('narrow')).toEqual([[{ keyColumn: 2, key: '77' }]])
  })

  it('shows of many columns those that differ, with the key, when it is asked to', async () => {
    const wrapper = pane(record({}, [field('key', 'basin', 'KB'), ...attributes, field('compared', 'holder', 'Osei', 'OSEI', finding(4))]))
    const only = wrapper.findAll('button').find((button) => button.text() === 'Show only the columns that differ')
    expect(wrapper.findAll('.field')).toHaveLength(32)
    await only?.trigger('click')

    expect(wrapper.findAll('.field').map((one) => one.find('.label').text().split(' ')[0])).toEqual(['basin', 'holder'])
    expect(wrapper.text()).toContain('Show all columns')
  })

  it('shortens long values until it is asked for the whole, and again in the next record', async () => {
    const long = 'Quay wall weeps. '.repeat(200)
    const wrapper = pane(record({}, [field('compared', 'notes', long, `${long}Again.`, finding(4))]))
    expect(wrapper.text().length).toBeLessThan(1_000)
    await wrapper
      .findAll('button')
      .find((button) => button.text().includes('show them whole'))
      ?.trigger('click')
    expect(wrapper.text().length).toBeGreaterThan(6_000)
    await wrapper.setProps({ record: record({ sequence: 8 }, [field('compared', 'notes', long, `${long}Again.`, finding(5))]) })
    await nextTick()

    expect(wrapper.text().length).toBeLessThan(1_000)
  })

  it('says of a row that agrees that it does, and of a masked value that it is kept back', () => {
    expect(pane(record({ class: 'agreed', sequence: 0 }, [field('compared', 'holder', 'Osei')])).text()).toContain('Every compared cell agrees')
    expect(
      pane(record({}, [field('compared', 'contact', '(masked)', '', finding(4))]))
        .find('.blank')
        .text(),
    ).toBe('masked')
  })
})
