import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { withFold, withRungs, withSteps } from '@/composables/draftChanges'
import MeetingBand from '@/stations/match/MeetingBand.vue'

const column = (name: string) => ({ source: name, target: name })
const none = { source: 0, target: 0 }
const rung = (cause: Schemas['KeyMeeting']['rungs'][number]['cause'], brings: number, more: object = {}): Schemas['KeyMeeting']['rungs'][number] => ({
  ...{ column: 'depot', cause, source: {}, target: {}, entries: [], example: { source: '00037', target: '37' }, brings, shares: none, left: 4 },
  ...more,
})
const found: Schemas['KeyMeeting'] = {
  ...{ rows: { source: 3_616, target: 3_608 }, met: 0, oneToOne: 0, sharing: none, beside: [{ source: ['9', 'Lime'], target: null }] },
  rungs: [rung('leading-zeros', 3_602), rung('case', 0, { column: 'goods', shares: { source: 2, target: 0 } })],
  together: { rungs: [0, 1], brings: 3_610, shares: none, left: 0 },
}
const advised: Schemas['AdvisedKey'] = {
  ...{ columns: [column('depot'), column('month')], rows: { source: 3_616, target: 3_608 }, repeats: none, unkeyed: none, meets: 3_612 },
  ...{ oneToOne: 3_612, couldMeet: 3_612, meetsShare: '99.88 %', shorter: [], isOfAllRows: true },
}
const band = (more: object = {}) =>
  mount(MeetingBand, {
    props: {
      meeting: { isWaiting: false, done: 0, total: 0, problem: null, found },
      keys: { isWaiting: false, done: 0, total: 0, problem: null, hasSearched: true, advised: [] },
      fold: null,
      draftKey: [column('depot'), column('goods')],
      labels: { source: 'Old register', target: 'New register' },
      isChanging: false,
      mayWork: true,
      ...more,
    },
    global: { plugins: [ElementPlus] },
  })
const text = (wrapper: ReturnType<typeof band>): string => wrapper.text().replaceAll(/\s+/g, ' ')

describe('how many rows meet', () => {
  it('says so above all, with what each cause of form would bring in, and takes it at a press', async () => {
    const wrapper = band()
    expect(text(wrapper)).toContain('0 of 3,616 source rows meet one by depot + goods')
    expect(text(wrapper)).toContain('leading zeros such as 00037 and 37')
    expect(text(wrapper)).toContain('brings in 3,602 rows, no more rows share a key; 4 meet none')
    expect(text(wrapper)).toContain('brings rows in with another, 2 rows of the source more then share a key')
    expect(text(wrapper)).toContain('bring in 3,610 rows, no more rows share a key; none is left')
    await wrapper.find('button[aria-label="Ignore leading zeros in depot"]').trigger('click')
    await wrapper.find('tr.together button').trigger('click')

    expect(wrapper.emitted('forgive')).toEqual([
      [[found.rungs[0]], false],
      [found.rungs, false],
    ])
  })

  it('names a key that joins more, and one where there is none yet', async () => {
    expect(band().find('.better').exists()).toBe(false)
    const few = { ...found, met: 900, rungs: [], together: null }
    const wrapper = band({
      meeting: { isWaiting: false, done: 0, total: 0, problem: null, found: few },
      keys: { isWaiting: false, done: 0, total: 0, problem: null, hasSearched: true, advised: [advised] },
    })
    expect(text(wrapper)).toContain('Another key joins more: depot + month: 3,612 of 3,616 source rows would meet one to one.')
    await wrapper.find('.better button').trigger('click')
    expect(wrapper.emitted('use')).toEqual([[advised.columns]])
    expect(text(band({ meeting: null, draftKey: [] }))).toContain('No key yet.')
  })

  it('changes nothing of a draft but what was taken', () => {
    const draft = { key: [column('depot'), column('goods')], columnPairs: [], leftOut: { source: [], target: [] } } as Schemas['PlanDraft']
    const dates = { column: 'goods', cause: 'date-form' as const, entries: [], source: { dateForms: ['dd.MM.yyyy'] }, target: {} }

    expect(withRungs(draft, [rung('leading-zeros', 1), dates], () => 's1')).toEqual({
      ...draft,
      key: [
        { ...column('depot'), forgives: ['leading-zeros'] },
        { ...column('goods'), forgives: ['date-form'] },
      ],
      sides: { source: { columns: { goods: { dateForms: ['dd.MM.yyyy'] } } } },
    })
    expect(withSteps(draft, [dates], () => 's1').sides).toEqual({
      source: { preparation: [{ id: 's1', kind: 'read-date', columns: ['goods'], reading: { dateForms: ['dd.MM.yyyy'] } }] },
      target: { preparation: [{ id: 's1', kind: 'read-date', columns: ['goods'] }] },
    })
  })

  it('turns columns into rows under the names that the other side has for them, and pairs them', async () => {
    const fold = { side: 'source' as const, columns: ['Jan', 'Feb'], namesInto: 'Month', valuesInto: 'Toll', rows: { source: 9, target: 18 } }
    const wrapper = band({ fold })
    expect(text(wrapper)).toContain('2 columns of Old register, Jan to Feb, stand as rows in New register, in Month and Toll.')
    await wrapper
      .findAll('button')
      .find((button) => button.text() === 'Turn them into rows')
      ?.trigger('click')
    expect(wrapper.emitted('fold')).toEqual([[fold]])

    const pair = (source: string, target: string): Schemas['ColumnPair'] => ({ id: source, source, target, kind: 'text' })
    const draft = {
      key: [column('depot')],
      columnPairs: [pair('Jan', 'Toll'), pair('goods', 'goods')],
      leftOut: { source: [], target: [] },
    } as Schemas['PlanDraft']
    const folded = withFold(draft, fold, () => 's1')
    expect(folded.columnPairs.map(({ source, target }) => [source, target])).toEqual([
      ['goods', 'goods'],
      ['Month', 'Month'],
      ['Toll', 'Toll'],
    ])
    expect(folded.sides?.source?.preparation).toEqual([
      { id: 's1', kind: 'columns-into-rows', columns: ['Jan', 'Feb'], namesInto: 'Month', valuesInto: 'Toll' },
    ])
  })

  it('translates by a crosswalk as a step of the source', () => {
    const draft = { key: [column('month')], columnPairs: [], leftOut: { source: [], target: [] } } as Schemas['PlanDraft']
    const entries = [{ source: 'Jan', target: 'January' }]

    expect(withRungs(draft, [rung('crosswalk', 9, { column: 'month', entries })], () => 's1').sides).toEqual({
      source: { preparation: [{ id: 's1', kind: 'crosswalk', column: 'month', entries }] },
    })
  })
})
