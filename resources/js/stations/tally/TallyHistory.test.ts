import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import TallyHistory from '@/stations/tally/TallyHistory.vue'
import { useServer } from '@/testing/server'

const { GET } = useServer()

const side = { agreed: 90, changed: 8, repeated: 2, unkeyed: 0, refused: 0, prepared: 100, delivered: 100 }
const tally = (number: number, planVersion: number, more: object = {}) =>
  ({
    id: number + 10,
    number,
    planVersion,
    finishedAt: '2026-11-25T10:00:00Z',
    rows: { source: { ...side, missing: 12 - number }, target: { ...side, extra: number } },
    figures: { agreement: '99.10 %', ofArrived: '99.60 %', rowsArrived: '98.00 %' },
    values: { values: 1000, right: 990 + number },
    name: '',
    remark: '',
    parameters: [],
    references: [],
    matched: [],
    warnings: [],
    openGroups: 1,
    carryOver: null,
    sourceDelivery: 1,
    targetDelivery: number,
    startedBy: 'Ruth Osei',
    ...more,
  }) as unknown as Schemas['Tally']
const course = { id: 7, migration: { sourceLabel: 'Old register', targetLabel: 'New register' } } as unknown as Schemas['Course']
const history = (...tallies: Schemas['Tally'][]) =>
  mount(TallyHistory, {
    props: { tallies, course },
    attachTo: document.body,
    global: { plugins: [ElementPlus, VueQueryPlugin], stubs: { RouterLink: true, TallyComparison: true } },
  })

describe('the history of tallies', () => {
  it('says what became of the rulings before', () => {
    const carryOver = { from: 1, ruled: 20, carried: 10, changed: 3, beyond: 2, takenOn: 4, gone: 5, settledBy: 'plan', hasOtherKey: false }
    expect(history(tally(2, 1, { carryOver }), tally(1, 1)).text()).toContain(
      'of 20 findings ruled on in tally 1, 10 stand here, 3 changed since and opened again, 2 opened again, for their pattern has more cells than the ruling was meant for, 4 more are covered by a ruling for tallies to come, 5 absorbed by plan 1',
    )
    expect(history(tally(2, 1, { carryOver: { ...carryOver, hasOtherKey: true } })).text()).toContain('5 settled, or not to be placed under the new key')
  })

  it('lists the rulings that stand on nothing any more, page by page', async () => {
    const left = { key: 'KB,014', column: 'fee', class: 'changed', cause: 'rounding', source: '1.25', target: '1.3', sourceLine: 2, targetLine: 3, decision: 'defect', reason: 'cut', ticket: null, by: 'Tove Lindqvist' } // prettier-ignore
    GET.mockImplementation((_path: string, { params }: { params: { query: { from: number } } }) =>
      Promise.resolve(params.query.from === 1 ? { items: [left], next: 201 } : { items: [{ ...left, key: 'LM,2' }], next: null }),
    )
    const wrapper = history(
      tally(2, 1, { carryOver: { from: 1, ruled: 3, carried: 1, changed: 0, beyond: 0, takenOn: 0, gone: 2, settledBy: 'data', hasOtherKey: true } }),
    )
    await wrapper.find('button[aria-label="List the rulings that do not stand in tally 2"]').trigger('click')
    await flushPromises()
    expect(document.body.textContent).toContain('KB,014source line 2, target line 3fee: rounding1.251.3Defect, Tove Lindqvist')
    ;[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Show more'))?.click()
    await flushPromises()
    expect(document.body.textContent).toContain('LM,2')
    expect(document.body.textContent).not.toContain('Show more')
  })

  it('compares the earlier of two chosen tallies with the later, whichever was chosen first', async () => {
    const wrapper = history(tally(3, 2), tally(2, 1), tally(1, 1))
    for (const number of [3, 2, 1]) await wrapper.find(`input[aria-label="Compare tally ${number}"]`).setValue(true)
    await wrapper
      .findAll('button')
      .find((button) => button.text() === 'Compare tally 1 with tally 2')
      ?.trigger('click')

    const compared = wrapper.findComponent({ name: 'TallyComparison' })
    expect([compared.props('earlier').number, compared.props('later').number]).toEqual([1, 2])
  })

  it('draws each class from tally to tally, and where the plan changed', () => {
    const wrapper = history(tally(3, 2), tally(2, 1), tally(1, 1))
    const curve = wrapper.find('svg[role="img"][aria-label^="Rows of each class"]')

    expect(curve.attributes('aria-label')).toContain('Missing: 11, 10, 9. Extra: 1, 2, 3.')
    expect(curve.findAll('line.plan')).toHaveLength(1)
    expect(history(tally(1, 1)).find('svg[aria-label^="Rows of each class"]').exists()).toBe(false)
  })
})
