import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import ElementPlus from 'element-plus'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/api/client'
import MaskStrip from '@/parts/MaskStrip.vue'
import { useServer } from '@/testing/server'

const { GET, POST, DELETE } = useServer()

const strip = (sensitive: Partial<NonNullable<Schemas['Course']['sensitive']>>) =>
  mount(MaskStrip, {
    props: { dataset: 9, sensitive: { masked: [], mayShow: true, shownUntil: null, ...sensitive } },
    global: { plugins: [ElementPlus, VueQueryPlugin], stubs: { teleport: true } },
  })
const press = async (wrapper: ReturnType<typeof strip>, words: string): Promise<void> => {
  await wrapper
    .findAll('button')
    .find((button) => button.text() === words)
    ?.trigger('click')
  await flushPromises()
}

describe('what is masked', () => {
  beforeEach(() => {
    vi.resetAllMocks()
    POST.mockResolvedValue({})
    DELETE.mockResolvedValue({})
    GET.mockResolvedValue({
      items: [
        { person: 'Ruth Osei', at: '2026-11-25T10:00:00Z', until: '2026-11-25T11:00:00Z' },
        { person: 'Tove Lindqvist', at: '2026-11-25T10:00:00Z', until: '2026-11-25T10:00:00Z' },
      ],
    })
  })

  it('is named, and shown on record to whoever may see it', async () => {
    const wrapper = strip({ masked: ['holder', 'contact'] })
    expect(wrapper.text()).toContain('Values of holder, contact are masked.')
    await press(wrapper, 'Show them for an hour, on record')

    expect(POST).toHaveBeenCalledWith('/datasets/{dataset}/unmaskings', { params: { path: { dataset: 9 } } })
  })

  it('is not offered to whoever may not', () => {
    const wrapper = strip({ masked: ['contact'], mayShow: false })

    expect(wrapper.text()).toContain('are masked for your role')
    expect(wrapper.text()).not.toContain('Show them')
  })

  it('is masked again at one press', async () => {
    const wrapper = strip({ shownUntil: '2099-01-01T10:00:00Z' })
    expect(wrapper.text()).toContain('which is on record')
    await press(wrapper, 'Mask them again')

    expect(DELETE).toHaveBeenCalledOnce()
  })

  it('tells who had it shown, and who masked it again', async () => {
    const wrapper = strip({ masked: ['contact'] })
    expect(GET).not.toHaveBeenCalled()
    await press(wrapper, 'Who had them shown')

    expect(wrapper.findAll('li').map((line) => line.text().split(',')[0])).toEqual(['Ruth Osei had them shown', 'Tove Lindqvist masked them again'])
  })
})
