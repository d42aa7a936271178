import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** The dataset that the address names. */
export function useDatasetId() {
  const route = useRoute()
  return computed(() => Number(route.params.dataset))
}
