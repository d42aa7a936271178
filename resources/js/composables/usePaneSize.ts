import { computed, ref } from 'vue'

/** How wide a pane is, in pixels: within its bounds, closed or not, and remembered in this browser. */
export function usePaneSize(name: string, usual: number, least: number, most: number) {
  const stored = `nine-tally:pane:${name}`
  const clamp = (size: number): number => Math.round(Math.min(most, Math.max(least, size)))
  const remembered = Number(localStorage.getItem(stored) ?? usual)
  const size = ref(clamp(Number.isFinite(remembered) && remembered > 0 ? remembered : usual))
  const isClosed = ref(remembered === 0)
  const keep = (): void => localStorage.setItem(stored, isClosed.value ? '0' : String(size.value))

  function resize(wanted: number): void {
    isClosed.value = false
    size.value = clamp(wanted)
    keep()
  }
  function toggle(): void {
    isClosed.value = !isClosed.value
    keep()
  }
  const width = computed(() => (isClosed.value ? 0 : size.value))
  return { width, size, isClosed, resize, toggle, least, most }
}
