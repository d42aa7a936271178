import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import type { Schemas } from '@/api/client'
import { useAskForWorkbook, useSendWorkbooks } from '@/composables/useWorkbooks'
import WorkbookTray from '@/parts/WorkbookTray.vue'
import { useServer } from '@/testing/server'

const { GET, DELETE } = useServer()

const workbook = (id: string, more: Partial<Schemas['Workbook']> = {}): Schemas['Workbook'] => ({ id, datasetId: 1, name: `${id}.xlsx`, state: 'asked', rows: 1200, done: 1, total: 4, problem: null, ...more }) // prettier-ignore
let held: Schemas['Workbook'][] = []
const sent: string[] = []
const Page = defineComponent({
  setup() {
    const ask = useAskForWorkbook(() => Promise.resolve(workbook('new')))
    useSendWorkbooks(
      () => true,
      ({ name }) => sent.push(name),
    )
    return () => [h('button', { id: 'ask', onClick: () => ask.mutate() }), h(WorkbookTray, { dataset: 1 })]
  },
})
const page = () => mount(Page, { global: { plugins: [ElementPlus, VueQueryPlugin] } })
describe('the tray of workbooks', () => {
  beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    GET.mockImplementation(() => Promise.resolve({ items: held }))
    DELETE.mockImplementation(() => {
      held = []
      return Promise.resolve()
    })
  })

  it('says how far each is, sends what was asked for on this page, and nothing else', async () => {
    held = [workbook('before', { state: 'written' }), workbook('elsewhere', { datasetId: 2 })]
    const wrapper = page()
    await flushPromises()
    held = [...held, workbook('new')]
    await wrapper.get('#ask').trigger('click')
    await flushPromises()
    expect(wrapper.text()).toContain('1,200 rows written, 25 %')
    expect(wrapper.text()).not.toContain('elsewhere')
    expect(wrapper.get('[role=progressbar]').attributes('aria-valuenow')).toBe('25')
    held = [workbook('before', { state: 'written' }), workbook('new', { state: 'written' })]
    await vi.advanceTimersByTimeAsync(800)
    await flushPromises()
    expect(sent).toEqual(['new.xlsx'])
  })

  it('gives up what is being written, and says why another failed', async () => {
    held = [workbook('long'), workbook('lost', { state: 'failed', problem: 'The disk is full.' })]
    const wrapper = page()
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toBe('The disk is full.')
    await wrapper.get('button[aria-label="Cancel long.xlsx"]').trigger('click')
    await flushPromises()
    expect(DELETE).toHaveBeenCalledWith('/workbooks/{workbook}', { params: { path: { workbook: 'long' } } })
    expect(wrapper.find('aside').exists()).toBe(false)
  })
})
