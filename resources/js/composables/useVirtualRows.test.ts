import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick, ref } from 'vue'
import { useVirtualRows } from '@/composables/useVirtualRows'

const ROW = 34
const VIEWPORT = 340

/** A list of ten rows in height; the document that the tests run in lays nothing out, so the height is told. */
function listOf(total: number) {
  const component = defineComponent({
    setup(_, { expose }) {
      const scroller = ref<HTMLElement | null>(null)
      const list = useVirtualRows(scroller, () => total, ROW)
      expose({ list, scroller })
      return () => h('div', { ref: scroller })
    },
  })
  const wrapper = mount(component)
  const { list } = wrapper.vm as unknown as { list: ReturnType<typeof useVirtualRows> }
  const scrollTo = async (top: number): Promise<void> => {
    wrapper.element.scrollTop = top
    wrapper.element.dispatchEvent(new Event('scroll'))
    await nextTick()
  }
  return { list, scrollTo, element: wrapper.element as HTMLElement, unmount: () => wrapper.unmount() }
}

beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'clientHeight', 'get').mockReturnValue(VIEWPORT)
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe = (): void => undefined
      disconnect = (): void => undefined
    },
  )
})
afterEach(() => vi.restoreAllMocks())

describe('a long list', () => {
  it('draws what is in sight and a little around it', async () => {
    const { list, scrollTo } = listOf(1_000)
    expect([list.rows.value[0], list.rows.value.at(-1)]).toEqual([0, 17])

    await scrollTo(100 * ROW)
    expect([list.rows.value[0], list.rows.value.at(-1)]).toEqual([92, 117])
    expect(list.offset.value).toBe(92 * ROW)
  })

  it.each([12, 100_000, 5_000_000])('of %i rows shows its last row at the end of the way', async (total) => {
    const { list, scrollTo } = listOf(total)
    await scrollTo(list.height.value - VIEWPORT)

    expect(list.rows.value.at(-1)).toBe(total - 1)
    const lowerEdge = list.offset.value + list.rows.value.length * ROW
    expect(Math.abs(lowerEdge - list.height.value)).toBeLessThan(1)
    expect(list.height.value).toBeLessThanOrEqual(8_000_000)
  })

  it('scrolls to a row only as far as it takes to see it', async () => {
    const { list, scrollTo, element } = listOf(1_000)
    list.goTo(4)
    expect(element.scrollTop).toBe(0)
    list.goTo(10)
    expect(element.scrollTop).toBeCloseTo(ROW, 5)
    await scrollTo(500 * ROW)
    list.goTo(499)
    expect(element.scrollTop).toBeCloseTo(499 * ROW, 5)
  })

  it('of nothing draws nothing', () => {
    expect(listOf(0).list.rows.value).toEqual([])
  })
})
