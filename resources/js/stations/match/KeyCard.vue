<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import ErrorNote from '@/parts/ErrorNote.vue'
import { useKeyCounts } from '@/stations/match/useKeyCounts'

const props = defineProps<{ course: Schemas['Course']; draftKey: readonly Schemas['KeyColumn'][] }>()
const { data, error, isFetching } = useKeyCounts(
  () => props.course,
  () => props.draftKey,
)

const sides = computed(() =>
  (['source', 'target'] as const).map((side) => {
    const found = data.value?.[side]
    const label = side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel
    if (found === undefined) return { side, label, share: 0, sentence: 'being counted' }
    const sentence =
      found.repeatedRows === 0
        ? `${counted(found.uniqueRows, 'row')}, each with a unique key`
        : `${count(found.uniqueRows)} rows with a unique key, ${count(found.repeatedRows)} share a key`
    const unkeyed = found.unkeyedRows === 0 ? '' : `, ${count(found.unkeyedRows)} without a key`
    const basis = found.isWhole ? '' : ` (sample of the first ${counted(found.rows, 'row')}; the whole delivery is being counted)`
    return { side, label, share: found.rows === 0 ? 0 : found.uniqueRows / found.rows, sentence: `${sentence}${unkeyed}${basis}` }
  }),
)
</script>

<template>
  <section aria-label="What makes a row unique">
    <h2>What makes a row unique</h2>
    <div v-if="draftKey.length > 0" class="card" :aria-busy="isFetching">
      <b>{{ draftKey.map((column) => column.source).join(' + ') }}</b>
      <div v-for="side in sides" :key="side.side" class="gauge">
        <span>{{ side.label }}</span>
        <i aria-hidden="true"><u :class="side.side" :style="{ inlineSize: `${side.share * 100}%` }" /></i>
        <span class="quiet" :data-figure="`key-counts/${side.side}`">{{ side.sentence }}</span>
      </div>
    </div>
    <p v-else class="quiet">No key yet. Press the box in front of each column that tells one row from another.</p>
    <ErrorNote :error="error" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.card {
  background: var(--sheet);
  border: 1px solid var(--ink);
  box-shadow: inset 3px 0 0 var(--ink);
  padding: 10px 12px;
  display: grid;
  gap: 8px;
  overflow-wrap: anywhere;
}
.gauge {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
}
i {
  display: block;
  block-size: 6px;
  background: var(--line);
}
u {
  display: block;
  block-size: 6px;
}
u.source {
  background: var(--src);
}
u.target {
  background: var(--tgt);
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
