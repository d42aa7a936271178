<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'

/** Begins a crosswalk with the values that stand there: each as what it probably is on the other side, else as itself, which changes nothing. */
const props = defineProps<{ dataset: number; asked: Schemas['TriedSteps']; column: string; entries: readonly Schemas['KeyColumn'][] }>()
const emit = defineEmits<{ begin: [entries: Schemas['KeyColumn'][]] }>()

const look = useMutation({
  mutationFn: () =>
    answer(
      api.POST('/datasets/{dataset}/crosswalk-proposals', {
        params: { path: { dataset: props.dataset } },
        body: { ...props.asked, column: props.column },
      }),
    ),
  onSuccess: (found) => {
    const known = new Set(props.entries.map(({ source }) => source))
    const fresh = found.entries.filter(({ source }) => !known.has(source))
    if (fresh.length > 0) emit('begin', [...props.entries, ...fresh])
  },
})
const said = computed(() => {
  const found = look.data.value
  if (found === undefined) return ''
  if (found.isMasked) return 'These values are masked for you. Whoever may see them can begin with them.'
  if (found.values === 0) return 'The rows that were looked at have no value here.'
  if (found.entries.length === 0) return `${counted(found.values, 'different value')} are too many for a list: paste one, or read it from a file.`
  if (found.other === null) return `${counted(found.values, 'value')}, each as itself: the plan has no column for it on the other side.`
  const told = found.entries.filter(({ source, target }) => source !== target).length
  const parts = [
    [found.same, `stand in ${found.other} too`],
    [told, 'could be told'],
    [found.values - found.same - told, 'wait for their counterpart'],
  ] as const
  const said = parts.filter(([number]) => number > 0).map(([number, what]) => `${number} ${what}`)
  return `Of ${counted(found.values, 'value')} ${said.join(', ')}.`
})
</script>

<template>
  <p class="quiet begin">
    <el-button link size="small" :loading="look.isPending.value" @click="look.mutate()">Begin with the values of both sides</el-button>
    <span v-if="said !== ''" role="status"> {{ said }}</span>
  </p>
  <ErrorNote :error="look.error.value" />
</template>

<style scoped>
.begin span {
  margin-inline-start: 6px;
}
.begin {
  margin: 0;
  font-size: 12.5px;
}
</style>
