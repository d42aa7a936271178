<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { count, counted } from '@/format/counts'
import FigureValue from '@/parts/FigureValue.vue'

/** Keys that would tell rows apart, the most likely first, each with why fewer columns would not do. */
const props = defineProps<{ advice: Schemas['Advice']['keys']; draftKey: readonly Schemas['KeyColumn'][]; mayWork: boolean }>()
const emit = defineEmits<{ use: [columns: Schemas['KeyColumn'][]]; repeats: [columns: Schemas['KeyColumn'][]]; cancel: []; again: [] }>()

const FIRST = 3
const showsAll = ref(false)
const shown = computed(() => props.advice.advised.slice(0, showsAll.value ? undefined : FIRST))
const name = (key: Schemas['AdvisedKey']): string => key.columns.map(({ source }) => source).join(' + ')
const isUsed = (key: Schemas['AdvisedKey']): boolean =>
  key.columns.length === props.draftKey.length && key.columns.every(({ source }) => props.draftKey.some((column) => column.source === source))

function said(key: Schemas['AdvisedKey']): string {
  const ofBoth = (what: string, { source, target }: { source: number; target: number }): string =>
    `${what}: ${count(source)} of the source, ${count(target)} of the target`
  const parts = [
    key.repeats.source + key.repeats.target === 0 ? 'no row repeats' : ofBoth('rows repeat', key.repeats),
    key.meets === null ? '' : `${count(key.meets)} of ${count(key.rows.source)} source rows meet one (${key.meetsShare ?? ''})`,
    key.couldMeet === null || key.meets === null || key.couldMeet <= key.meets
      ? ''
      : `${count(key.couldMeet)} would, whatever form their values are written in`,
    key.unkeyed.source + key.unkeyed.target === 0 ? '' : ofBoth('rows without it', key.unkeyed),
  ]
  return parts.filter((part) => part !== '').join('; ')
}
const fails = (key: Schemas['AdvisedKey']): string =>
  key.shorter
    .map(({ without, repeats }) => `without ${without}, ${counted(Math.max(repeats.source, repeats.target), 'sample row')} would no longer be unique`)
    .join(', ')
</script>

<template>
  <section aria-label="Keys that are advised">
    <h2>Keys that would do</h2>
    <p v-if="advice.problem" class="warn" role="alert">{{ advice.problem }} <el-button link @click="emit('again')">Look again</el-button></p>
    <p v-else-if="advice.isWaiting" class="quiet" role="status">
      {{ advice.advised.length === 0 ? 'Looking for columns that tell rows apart' : 'Held against all rows'
      }}<span v-if="advice.total > 0" data-ordinal>: {{ Math.min(99, Math.floor((100 * advice.done) / advice.total)) }} %</span> …
      <el-button v-if="mayWork" link @click="emit('cancel')">Cancel</el-button>
    </p>
    <p v-if="!advice.isWaiting && advice.hasSearched && advice.advised.length === 0" class="quiet">
      No six columns or fewer tell the rows of both sides apart. Pair more columns, prepare the sides in Prepare, or choose a key and a policy for rows that
      share it.
    </p>
    <ol>
      <li v-for="key in shown" :key="name(key)" :class="{ used: isUsed(key) }">
        <b>{{ name(key) }}</b>
        <span v-if="isUsed(key)" class="quiet">the key of the plan</span>
        <el-button v-else-if="mayWork" size="small" :aria-label="`Use it: ${name(key)}`" @click="emit('use', [...key.columns])">Use it</el-button>
        <span class="said" data-figure="advice/keys/advised">{{ said(key) }}{{ key.isOfAllRows ? '' : ' (in a sample)' }}</span>
        <span v-if="key.shorter.length > 0" class="said quiet" data-figure="advice/keys/advised">{{ fails(key) }}</span>
        <el-button v-if="key.repeats.source + key.repeats.target > 0" link size="small" @click="emit('repeats', [...key.columns])"
          >Show the rows that repeat</el-button
        >
      </li>
    </ol>
    <el-button v-if="advice.advised.length > FIRST" link size="small" @click="showsAll = !showsAll">
      <template v-if="showsAll">Show the first three</template>
      <span v-else>Show all <FigureValue name="advice/keys/advised/length" :of="advice.advised.length" /></span>
    </el-button>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 13px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
  padding: 6px 0;
  border-block-end: 1px solid var(--line-2);
}
.used b {
  text-decoration: underline;
}
.said {
  flex: 1 0 100%;
  overflow-wrap: anywhere;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
p {
  margin: 0 0 4px;
  font-size: 13px;
}
</style>
