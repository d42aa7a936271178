import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { beforeEach, describe, expect, it } from 'vitest'
import RuleAllDialog from '@/stations/review/RuleAllDialog.vue'
import { useServer } from '@/testing/server'

const { GET } = useServer()

async function dialog(pattern: number | null = 4, findings = 12) {
  const wrapper = mount(RuleAllDialog, {
    props: {
      modelValue: false,
      tally: 3,
      words: '149 cells',
      pattern,
      findings,
      cells: 149,
      decision: 'defect',
      why: { reason: 'old form', ticket: 'WM-18', askedId: null },
      people: [],
    },
    global: { plugins: [ElementPlus, VueQueryPlugin], stubs: { teleport: true, ElSelect: true } },
  })
  await wrapper.setProps({ modelValue: true })
  await flushPromises()
  return wrapper
}
const choose = async (wrapper: Awaited<ReturnType<typeof dialog>>, future: string): Promise<void> => {
  await wrapper.find(`input[name="future"][value="${future}"]`).setValue()
}
const said = { reason: 'old form', ticket: 'WM-18', askedId: null }

describe('a ruling on all that is meant', () => {
  beforeEach(() => {
    GET.mockReset()
    GET.mockResolvedValue({ items: [{ source: 'S', target: 'A', cells: 149 }], isAll: true, cellsRead: 149, isMasked: false })
  })

  it('takes over what was begun beside the list', async () => {
    const wrapper = await dialog()
    expect(wrapper.text()).toContain('Rule defect on 149 cells')
    await wrapper.find('form').trigger('submit')

    expect(wrapper.emitted('rule')).toEqual([['defect', said, {}]])
  })

  it('holds in tallies to come up to a number of cells', async () => {
    const wrapper = await dialog()
    await choose(wrapper, 'up-to')
    await wrapper.find('[aria-label="Highest number of cells"]').setValue('200')
    await wrapper.find('form').trigger('submit')

    expect(wrapper.emitted('rule')).toEqual([['defect', said, { holdsUpTo: 200 }]])
    await wrapper.find('[aria-label="Highest number of cells"]').setValue('many')
    expect(wrapper.find('button[type="submit"]').attributes('disabled')).toBeDefined()
  })

  it('holds for named value pairs, where all of them are known', async () => {
    const wrapper = await dialog()
    await choose(wrapper, 'pairs')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('rule')).toEqual([['defect', said, { holdsFor: [{ source: 'S', target: 'A' }] }]])

    GET.mockResolvedValue({ items: [], isAll: false, cellsRead: 0, isMasked: true })
    expect((await dialog()).find('input[value="pairs"]').exists()).toBe(false)
  })

  it('wants the number said again where they are very many', async () => {
    const wrapper = await dialog(4, 1204)
    await wrapper.find('form').trigger('submit')
    await wrapper.find('input[aria-label="The number again"]').setValue('149')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('rule')).toBeUndefined()
    await wrapper.find('input[aria-label="The number again"]').setValue('1,204')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('rule')).toHaveLength(1)
  })

  it('says nothing of tallies to come where it is about a filter', async () => {
    expect((await dialog(null)).find('input[name="future"]').exists()).toBe(false)
    expect(GET).not.toHaveBeenCalled()
  })

  it('prefers no decision, and wants to know why', async () => {
    const wrapper = await dialog()
    await wrapper.setProps({ modelValue: false })
    await wrapper.setProps({ decision: null, why: { reason: '', ticket: '', askedId: null } })
    await wrapper.setProps({ modelValue: true })
    await flushPromises()
    expect(wrapper.findAll('input[name="decision"]').some((radio) => (radio.element as HTMLInputElement).checked)).toBe(false)
    const says = async (decision: string): Promise<string> => {
      await wrapper.find(`input[name="decision"][value="${decision}"]`).setValue()
      return wrapper.find('[role="status"]').exists() ? wrapper.find('[role="status"]').text() : ''
    }
    expect([wrapper.find('[role="status"]').text(), await says('defect'), await says('ask'), await says('open')]).toEqual([
      'Choose what they are.',
      'Say why.',
      'Choose who is asked.',
      '',
    ])
    await says('defect')
    await wrapper.find('form').trigger('submit')
    expect(wrapper.emitted('rule')).toBeUndefined()
  })
})
