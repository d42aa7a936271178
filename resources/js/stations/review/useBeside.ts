import { type Ref, ref, watch } from 'vue'

const name = (dataset: number): string => `nine-tally:beside:${dataset}`

/** Columns of the record that are shown beside the findings, as they are remembered for a dataset. */
export const besideOf = (dataset: number): string[] => (localStorage.getItem(name(dataset)) ?? '').split('\n').filter((column) => column !== '')

/** Whether the list says why, under which ticket and by whom each finding was ruled on. */
export function useSaysWhy(dataset: () => number): Ref<boolean> {
  const of = `nine-tally:says-why:${dataset()}`
  const saysWhy = ref(localStorage.getItem(of) === 'yes')
  watch(saysWhy, (says) => localStorage.setItem(of, says ? 'yes' : 'no'))
  return saysWhy
}

export function useBeside(dataset: () => number): Ref<string[]> {
  const beside = ref<string[]>(besideOf(dataset()))
  watch(beside, (names) => localStorage.setItem(name(dataset()), names.join('\n')))
  return beside
}
