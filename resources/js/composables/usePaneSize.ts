import { computed, ref } from 'vue'

/** How wide a pane is, in pixels: within its bounds, folded away or not, and remembered in this browser. */
export function usePaneSize(name: string, usual: number, least: number, most: number) {
  const stored = `nine-tally:pane:${name}`
  const clamp = (size: number): number => Math.round(Math.min(most, Math.max(least, size)))
  const remembered = Number(localStorage.getItem(stored) ?? usual)
  const size = ref(clamp(Number.isFinite(remembered) && remembered > 0 ? remembered : usual))
  const isFolded = ref(remembered === 0)
  const keep = (): void => localStorage.setItem(stored, isFolded.value ? '0' : String(size.value))

  function resize(wanted: number): void {
    isFolded.value = false
    size.value = clamp(wanted)
    keep()
  }
  function fold(): void {
    isFolded.value = !isFolded.value
    keep()
  }
  const width = computed(() => (isFolded.value ? 0 : size.value))
  return { width, size, isFolded, resize, fold, least, most }
}
