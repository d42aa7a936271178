import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import KeyAdvice from '@/stations/match/KeyAdvice.vue'

const column = (name: string) => ({ source: name, target: name })
const key = (names: string[], more: Partial<Schemas['AdvisedKey']> = {}): Schemas['AdvisedKey'] => ({
  columns: names.map(column),
  rows: { source: 1_200, target: 1_190 },
  repeats: { source: 0, target: 0 },
  unkeyed: { source: 0, target: 0 },
  meets: 1_188,
  oneToOne: 1_180,
  couldMeet: 1_188,
  meetsShare: '99.00 %',
  shorter: [{ without: 'basin', repeats: { source: 40, target: 38 } }],
  isOfAllRows: true,
  ...more,
})
const advice = (more: Partial<Schemas['Advice']['keys']>) =>
  mount(KeyAdvice, {
    props: {
      advice: { isWaiting: false, done: 0, total: 0, problem: null, hasSearched: true, advised: [], ...more },
      draftKey: [column('basin'), column('berth')],
      mayWork: true,
    },
    global: { plugins: [ElementPlus] },
  })

describe('keys that are advised', () => {
  it('say how many rows meet, and why fewer columns do not do', () => {
    const text = advice({ advised: [key(['basin', 'season'])] }).text()

    expect(text).toContain('no row repeats; 1,188 of 1,200 source rows meet one (99.00 %)')
    expect(advice({ advised: [key(['basin'], { meets: 0, oneToOne: 0 })] }).text()).toContain('1,188 would, whatever form their values are written in')
    expect(text).toContain('without basin, 40 sample rows would no longer be unique')
  })

  it('are used at a press, but for the one that is the key already', async () => {
    const wrapper = advice({ advised: [key(['berth', 'basin']), key(['basin', 'season'])] })
    expect(wrapper.findAll('button[aria-label^="Use"]').map((button) => button.attributes('aria-label'))).toEqual(['Use it: basin + season'])
    await wrapper.find('button[aria-label^="Use"]').trigger('click')

    expect(wrapper.emitted('use')).toEqual([[[column('basin'), column('season')]]])
  })

  it('open the rows that stand against them', async () => {
    const wrapper = advice({ advised: [key(['basin'], { repeats: { source: 3, target: 2 }, meets: null, isOfAllRows: false })] })
    expect(wrapper.text()).toContain('rows repeat: 3 of the source, 2 of the target (in a sample)')
    await wrapper
      .findAll('button')
      .find((button) => button.text() === 'Show the rows that repeat')
      ?.trigger('click')

    expect(wrapper.emitted('repeats')).toEqual([[[column('basin')]]])
  })

  it('are said not to be there only when they were looked for', () => {
    expect(advice({}).text()).toContain('No six columns or fewer tell the rows of both sides apart.')
    expect(advice({ hasSearched: false }).text()).not.toContain('No six columns')
    expect(advice({ isWaiting: true, done: 3, total: 10 }).text()).toContain('Looking for columns that tell rows apart: 30 %')
  })
})
