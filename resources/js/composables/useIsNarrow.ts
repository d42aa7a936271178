import { onMounted, onScopeDispose, type Ref, ref } from 'vue'

/** Whether an element is narrower than so many pixels, wherever it stands: panes are moved, pages are zoomed. */
export function useIsNarrow(element: Ref<HTMLElement | null>, below: () => number): Ref<boolean> {
  const isNarrow = ref(false)
  let observer: ResizeObserver | undefined
  onMounted(() => {
    if (element.value === null) return
    observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) isNarrow.value = entry.contentRect.width > 0 && entry.contentRect.width < below()
    })
    observer.observe(element.value)
  })
  onScopeDispose(() => observer?.disconnect())
  return isNarrow
}
