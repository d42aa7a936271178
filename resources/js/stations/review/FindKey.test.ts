import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it } from 'vitest'
import FindKey from '@/stations/review/FindKey.vue'
import { useServer } from '@/testing/server'

const { GET } = useServer()

const agreed = { class: 'agreed', key: 'KB,78' }
const answers = (items: object[], row: object = { isWaiting: false, done: 0, total: 0, problem: null, record: null }) =>
  GET.mockImplementation((path: string) => Promise.resolve(path.endsWith('agreeing-row') ? row : { items }))
async function find(text: string) {
  const wrapper = mount(FindKey, { props: { tally: 3, columns: ['basin', 'berth'], areMasked: false }, global: { plugins: [VueQueryPlugin] } })
  await wrapper.find('input').trigger('focus')
  await wrapper.find('input').setValue(text)
  for (let turn = 0; turn < 4; turn++) await flushPromises()
  return wrapper
}
const asked = (path: string) => GET.mock.calls.filter(([called]) => called === path)

describe('finding a key', () => {
  beforeEach(() => {
    GET.mockReset()
  })

  it('lists findings by the beginning of a key, and asks for no other before the key is whole', async () => {
    answers([{ sequence: 7, class: 'changed', side: null, key: 'KB,77' }])
    const wrapper = await find('KB')
    await wrapper.find('li button').trigger('click')

    expect(wrapper.emitted('found')).toEqual([[7]])
    expect(asked('/tallies/{tally}/agreeing-row')).toHaveLength(0)
  })

  it('finds a row that agrees by its whole key, with the return key too', async () => {
    answers([], { isWaiting: false, done: 0, total: 0, problem: null, record: agreed })
    const wrapper = await find('KB,78')
    expect(wrapper.find('li').text()).toContain('agrees')
    expect(asked('/tallies/{tally}/agreeing-row')[0]?.[1]).toMatchObject({ params: { query: { 'key[]': ['KB', '78'] } } })
    await wrapper.find('input').trigger('keydown', { key: 'Enter' })

    expect(wrapper.emitted('agreeing')).toEqual([[agreed]])
  })

  it('does not look elsewhere for a key that is among the findings', async () => {
    answers([{ sequence: 7, class: 'changed', side: null, key: 'KB,77' }])
    const wrapper = await find('KB,77')
    await wrapper.find('input').trigger('keydown', { key: 'Enter' })

    expect(asked('/tallies/{tally}/agreeing-row')).toHaveLength(0)
    expect(wrapper.emitted('found')).toEqual([[7]])
  })

  it('says that it looks through both sides, how far it is, and that there is no such row', async () => {
    answers([], { isWaiting: true, done: 30, total: 120, problem: null, record: null })
    expect((await find('KB,79')).find('ul').text()).toContain('25 %')
    answers([])
    expect((await find('KB,80')).find('ul').text()).toBe('No row of both sides has this key.')
    expect((await find('XY')).find('ul').text()).toContain('Type a key to its end')
  })
})
