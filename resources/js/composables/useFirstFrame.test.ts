import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { useFirstFrame } from '@/composables/useFirstFrame'

const Screen = defineComponent({
  setup() {
    const isDrawn = useFirstFrame()
    return { isDrawn }
  },
  render() {
    return h('p', this.isDrawn ? 'list, record' : 'list')
  },
})

describe('the first frame of a screen', () => {
  it('has what is looked for first, and the rest comes after it', async () => {
    const screen = mount(Screen)
    expect(screen.text()).toBe('list')
    await vi.waitFor(() => expect(screen.text()).toBe('list, record'))
  })

  it('is not waited for by a screen that has been left', async () => {
    const screen = mount(Screen)
    const isDrawn = (): boolean => (screen.vm as unknown as { isDrawn: boolean }).isDrawn
    screen.unmount()
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect(isDrawn()).toBe(false)
  })
})
