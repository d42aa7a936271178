import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import PairList from '@/stations/match/PairList.vue'
import TrialCard from '@/stations/match/TrialCard.vue'

const global = { plugins: [ElementPlus] }
const side = { agreed: 90, changed: 8, repeated: 1, unkeyed: 0, refused: 0, prepared: 100, delivered: 100 }
const result = (more: object = {}) => ({
  rows: { source: { ...side, missing: 2 }, target: { ...side, extra: 3 } },
  values: { values: 1000, right: 991, differing: 4, lost: 3, added: 2, blankOnBoth: 0, agreement: '99.10 %' },
  ofArrived: '99.60 %',
  rowsArrived: '98.00 %',
  pairs: [{ source: 'fee', compared: 98, forgiven: 0, differing: 8, agreeing: '91.83 %' }],
  patterns: [
    { source: 'holder', sentence: 'spaces differ', cells: 3 },
    { source: 'fee', sentence: 'rounded', cells: 5 },
  ],
  warnings: [],
  sampleRows: { source: 100, target: 99 },
  repeats: { source: { setAside: 1, notKept: 0, kept: 0 }, target: { setAside: 0, notKept: 1, kept: 1 } },
  keyForgiven: [{ source: 'berth', sentence: 'leading zeros differ', cells: 7 }],
  notCompared: { source: 1, target: 0 },
  isHead: false,
  oneIn: 4,
  findings: [],
  ...more,
})
const card = (more: object = {}) =>
  mount(TrialCard, {
    props: { trial: { isWaiting: false, done: 0, total: 0, problem: null, result: result(more) } as unknown as Schemas['Trial'], isFetching: false },
    global,
  })

describe('the trial of a plan', () => {
  it('says what it found, the most cells first, and on how many rows', () => {
    const wrapper = card()

    expect(wrapper.text()).toContain('98 of 100 source rows meet one (98.00 %).')
    expect(wrapper.text()).toContain('991 of 1,000 values are right (99.10 %): 4 differ, 3 lost, 2 added.')
    expect(wrapper.findAll('li').map((line) => line.text())).toEqual(['fee rounded 5 cells', 'holder spaces differ 3 cells'])
    expect(wrapper.text()).toContain('100 delivered rows against 99: one key in 4, the same on both sides.')
    expect(card({ oneIn: 1 }).text()).toContain('100 delivered rows against 99: all of them.')
  })

  it('says where it is only the beginning of both sides', () => {
    expect(card({ isHead: true, oneIn: null }).text()).toContain('the beginning of both sides, where other rows may stand')
  })

  it('says what the key lets pass, and what is not compared', () => {
    expect(card().text()).toContain('The key lets pass: berth leading zeros differ 7 cells')
    expect(card().text()).toContain('Not compared: 1 column of the source.')
    expect(card({ notCompared: { source: 0, target: 0 } }).text()).not.toContain('Not compared')
  })

  it('counts repeated rows of both sides', () => {
    const text = card().text()
    expect(text).toContain('2 repeated key')
    expect(text).toContain('Keys that repeat in the source: 1 row set aside.')
    expect(text).toContain('Keys that repeat in the target: 1 row not kept beside 1 row kept.')
  })
})

describe('pairs that are proposed', () => {
  const plan = {
    source: { rows: 9, columns: ['basin', 'fee', 'since'].map((name) => ({ name, examples: [] })) },
    target: { rows: 9, columns: ['c1', 'c2', 'c3'].map((name) => ({ name, examples: [] })) },
  } as unknown as Schemas['Plan']
  const proposal = (source: string, target: string, strength: 'strong' | 'likely') => ({
    source,
    target,
    score: 0.9,
    strength,
    reasons: ['98 % of the values stand in both'],
  })
  const form = (source: string, target: string, kind: Schemas['Kind'], ways: Schemas['AdvisedForm']['ways']): Schemas['AdvisedForm'] => ({
    ...{ source, target, kind, ways, isText: true, compared: 9, asText: 2, isOfRows: true },
    rows: [{ sourceLine: 4, targetLine: 7, source: '1234', target: '1,234' }],
  })
  const list = (draft: object) =>
    mount(PairList, {
      props: {
        plan,
        draft: { key: [], columnPairs: [], leftOut: { source: [], target: [] }, ...draft } as Schemas['PlanDraft'],
        proposals: [proposal('basin', 'c1', 'strong'), proposal('fee', 'c2', 'likely')],
        forms: {
          isWaiting: false,
          problem: null,
          forms: [
            form('fee', 'c2', 'number', [{ source: {}, target: { groupMark: ',' }, agree: 9 }]),
            form('since', 'c3', 'date', [
              { source: {}, target: { dateForms: ['dd/MM/yyyy'] }, agree: 4 },
              { source: {}, target: { dateForms: ['MM/dd/yyyy'] }, agree: 4 },
            ]),
          ],
          tokens: [{ side: 'target', column: 'c2', token: 'NULL', rows: 7, blank: 7 }],
        },
        labels: { source: 'Old register', target: 'New register' },
        agreeing: result().pairs,
        mayWork: true,
        chosen: null,
      },
      global,
    })
  const press = async (wrapper: ReturnType<typeof list>, text: string): Promise<void> => {
    await wrapper
      .findAll('button')
      .find((button) => button.text() === text)
      ?.trigger('click')
  }

  it('are confirmed one by one, or all strong ones at once', async () => {
    const wrapper = list({})
    await press(wrapper, 'Confirm it')
    await wrapper.find('button[aria-label="Confirm fee with c2"]').trigger('click')

    // What both sides say that the pair is, is taken over with it.
    const readAs = { source: 'fee', target: 'c2', kind: 'number', declares: { source: {}, target: { groupMark: ',' } } }
    expect(wrapper.emitted('pairAll')).toEqual([
      [[{ source: 'basin', target: 'c1' }], []],
      [[{ source: 'fee', target: 'c2' }], [readAs]],
    ])
  })

  it('are no longer proposed once either column is paired', () => {
    const wrapper = list({ columnPairs: [{ id: 'pair-1', source: 'fee', target: 'c1', kind: 'text' }] })

    expect(wrapper.text()).not.toContain('proposed strongly')
    expect(wrapper.find('button[aria-label^="Confirm"]').exists()).toBe(false)
    expect(wrapper.text()).toContain('91.83 % agree')
  })

  it('are made by dropping a source column on a target one', async () => {
    const wrapper = list({})
    await wrapper.findAll('th[draggable="true"]')[1]?.trigger('dragstart')
    await wrapper
      .findAll('tr')
      .find((row) => row.find('th.quiet').exists() && row.text().includes('c1'))
      ?.trigger('drop')

    expect(wrapper.emitted('pair')).toEqual([['fee', 'c1']])
  })

  it('show below a pair how it could be read, what that would settle, and the rows that show it', async () => {
    const wrapper = list({ columnPairs: [{ id: 'pair-1', source: 'fee', target: 'c2', kind: 'text' }] })
    const text = wrapper.text().replaceAll(/\s+/g, ' ')
    expect(text).toContain('fee could be read as number (New register: a comma between thousands): 9 of 9 rows that meet then agree, 2 as they stand.')
    expect(text).toMatch(/lines 4 and 7 1234\s?1,234/)
    expect(text).toContain('"NULL" of New register could mean blank: where it stands the other side is blank in 7 of 7 rows.')
    await press(wrapper, 'Take all 2')

    expect(wrapper.emitted('readAs')).toEqual([
      [
        [{ source: 'fee', target: 'c2', kind: 'number', declares: { source: {}, target: { groupMark: ',' } } }],
        [{ side: 'target', column: 'c2', token: 'NULL', rows: 7, blank: 7 }],
      ],
    ])
  })

  it('ask which form it is where the rows tell none, and take it only then', async () => {
    const today = new Date()
    const pad = (value: number): string => String(value).padStart(2, '0')
    const wrapper = list({ columnPairs: [{ id: 'pair-1', source: 'since', target: 'c3', kind: 'text' }] })
    expect(wrapper.text()).toContain('since could be read as date in several ways. Which is it?')
    expect(wrapper.text()).not.toContain('Take it')
    await press(wrapper, `New register: ${pad(today.getMonth() + 1)}/${pad(today.getDate())}/${today.getFullYear()} (month/day/year)`)

    expect(wrapper.emitted('readAs')).toMatchObject([[[{ source: 'since', kind: 'date', declares: { target: { dateForms: ['MM/dd/yyyy'] } } }], []]])
  })
})
