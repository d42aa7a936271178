import { computed, onMounted, onScopeDispose, type Ref, ref } from 'vue'

/** Browsers lay out no element higher than some 16 million pixels; above this the scroll position is mapped to the place in the list. */
const HIGHEST = 8_000_000
const AROUND = 8

/** Which rows of a long list are in sight, for any number of rows of one height. */
export function useVirtualRows(scroller: Ref<HTMLElement | null>, total: () => number, rowHeightNow: number | (() => number)) {
  const rowHeight = computed(() => (typeof rowHeightNow === 'number' ? rowHeightNow : rowHeightNow()))
  const scrolled = ref(0)
  const viewport = ref(600)
  const height = computed(() => Math.min(total() * rowHeight.value, HIGHEST))
  const fits = computed(() => viewport.value / rowHeight.value)
  /** place in the list of the row at the top edge; a fraction while a row is half scrolled out */
  const top = computed(() => {
    const way = height.value - viewport.value
    return way <= 0 ? 0 : (Math.min(scrolled.value, way) / way) * Math.max(0, total() - fits.value)
  })
  const first = computed(() => Math.max(0, Math.floor(top.value) - AROUND))
  const last = computed(() => Math.min(total(), Math.ceil(top.value + fits.value) + AROUND))
  const rows = computed(() => Array.from({ length: Math.max(0, last.value - first.value) }, (_, position) => first.value + position))
  /** where the first drawn row stands */
  const offset = computed(() => scrolled.value + (first.value - top.value) * rowHeight.value)

  function goTo(index: number): void {
    const element = scroller.value
    if (element === null) return
    const way = height.value - viewport.value
    const place = (wanted: number): number => (way <= 0 ? 0 : (wanted / Math.max(1, total() - fits.value)) * way)
    if (index < top.value) {
      element.scrollTop = place(index)
    } else if (index + 1 > top.value + fits.value) {
      element.scrollTop = place(index + 1 - fits.value)
    }
  }

  /** The browser would lay the page out to find that it is there already. */
  function goToBeginning(): void {
    if (scroller.value !== null && scrolled.value !== 0) scroller.value.scrollTop = 0
  }

  let observer: ResizeObserver | undefined
  const follow = (): void => {
    scrolled.value = scroller.value?.scrollTop ?? 0
  }
  onMounted(() => {
    const element = scroller.value
    if (element === null) return
    viewport.value = element.clientHeight
    observer = new ResizeObserver(() => (viewport.value = element.clientHeight))
    observer.observe(element)
    element.addEventListener('scroll', follow, { passive: true })
  })
  onScopeDispose(() => {
    observer?.disconnect()
    scroller.value?.removeEventListener('scroll', follow)
  })
  return { height, rows, offset, goTo, goToBeginning, fits }
}
