import { type Ref, ref, watch } from 'vue'

/** Columns of the record that are shown beside the findings, remembered for each dataset. */
export function useBeside(dataset: () => number): Ref<string[]> {
  const name = (): string => `nine-tally:beside:${dataset()}`
  const beside = ref<string[]>((localStorage.getItem(name()) ?? '').split('\n').filter((column) => column !== ''))
  watch(beside, (names) => localStorage.setItem(name(), names.join('\n')))
  return beside
}
