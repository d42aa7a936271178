<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Column, columnName, equivalentsOf, KINDS, type NearKeys, whyColumn } from '@/stations/review/near/nearKeys'

/** By which columns rows are alike: proposed, with the reason, and changed by whoever knows better. */
const props = defineProps<{ look: NearKeys; mayWork: boolean }>()
const emit = defineEmits<{ look: [columns: Column[], words: string | null] }>()

const columns = ref<Column[]>(props.look.columns.map((column) => ({ ...column })))
const kept = computed(() => props.look.equivalents.map(({ word, meaning }) => `${word} = ${meaning}`).join('\n'))
const words = ref(kept.value)
const why = (column: Column): string => {
  const proposed = props.look.proposed.find(({ source }) => source === column.source)
  return proposed === undefined ? '' : whyColumn(proposed)
}
const addable = computed(() => props.look.available.filter(({ source }) => !columns.value.some((column) => column.source === source)))
const isChanged = computed(() => JSON.stringify(columns.value) !== JSON.stringify(props.look.columns) || words.value !== kept.value)
const isProposed = computed(
  () => JSON.stringify(columns.value) === JSON.stringify(props.look.proposed.map(({ source, target, kind, weight }) => ({ source, target, kind, weight }))),
)
function add(source: string): void {
  const pair = addable.value.find((one) => one.source === source)
  const proposed = props.look.proposed.find((one) => one.source === source)
  if (pair !== undefined) columns.value.push({ source, target: pair.target, kind: proposed?.kind ?? 'words', weight: proposed?.weight ?? 5 })
}
const propose = (): void => {
  columns.value = props.look.proposed.map(({ source, target, kind, weight }) => ({ source, target, kind, weight }))
}
const skipped = computed(() => words.value.split('\n').filter((line) => line.trim() !== '').length - equivalentsOf(words.value).length)
</script>

<template>
  <section aria-label="By which columns rows are alike">
    <h3>Rows are alike by</h3>
    <ul>
      <li v-for="(column, place) in columns" :key="column.source">
        <div class="line">
          <b>{{ columnName(column) }}</b>
          <button type="button" class="plain" :aria-label="`Leave out ${column.source}`" @click="columns.splice(place, 1)">×</button>
        </div>
        <div class="line">
          <el-select v-model="column.kind" size="small" :aria-label="`Kind of likeness of ${column.source}`">
            <el-option v-for="known in KINDS" :key="known.kind" :value="known.kind" :label="known.name">
              <b>{{ known.name }}</b> <span class="quiet">{{ known.help }}</span>
            </el-option>
          </el-select>
          <label class="weight"
            >weight <el-input-number v-model="column.weight" size="small" :min="1" :max="10" :aria-label="`Weight of ${column.source}`"
          /></label>
        </div>
        <span v-if="why(column)" class="quiet">{{ why(column) }}</span>
      </li>
    </ul>
    <el-select v-if="addable.length > 0" size="small" filterable placeholder="add a column" aria-label="Add a column" :model-value="''" @change="add">
      <el-option v-for="pair in addable" :key="pair.source" :value="pair.source" :label="columnName(pair)" />
    </el-select>
    <label v-if="mayWork" class="words"
      >Words that mean the same, a line each
      <textarea v-model="words" rows="2" placeholder="street = st" aria-label="Words that mean the same" />
      <span v-if="skipped > 0" class="warn">{{ skipped }} of the lines name no two single words: write word = word.</span>
      <span v-else class="quiet">kept in the plan</span>
    </label>
    <p class="line">
      <el-button size="small" type="primary" :disabled="!isChanged || columns.length === 0" @click="emit('look', columns, words === kept ? null : words)"
        >Look again</el-button
      >
      <el-button v-if="!isProposed" size="small" @click="propose">As proposed</el-button>
    </p>
  </section>
</template>

<style scoped>
section {
  padding: 8px 14px 12px;
  font-size: 13px;
}
h3 {
  margin: 0 0 4px;
  font-size: 12px;
  color: var(--ink-2);
}
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
li {
  padding: 5px 0 6px;
  border-block-start: 1px solid var(--line);
  overflow-wrap: anywhere;
}
li .quiet {
  font-size: 12px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  margin: 0;
}
.line .el-select {
  flex: 1 1 90px;
}
.weight {
  display: flex;
  gap: 6px;
  align-items: center;
}
.weight .el-input-number {
  inline-size: 88px;
}
.words {
  display: grid;
  gap: 2px;
  margin: 8px 0;
}
textarea {
  font: inherit;
  border: 1px solid var(--line);
  background: var(--paper);
  padding: 3px 6px;
  resize: vertical;
}
</style>
