<script setup lang="ts">
import { ref } from 'vue'
import CommittedInput from '@/parts/CommittedInput.vue'

/** Pairs of names or values that belong together. */
const props = defineProps<{ label: string; pairs: readonly Record<string, string>[]; names: readonly string[]; columns: readonly string[]; mayWork: boolean }>()
const emit = defineEmits<{ update: [pairs: Record<string, string>[]] }>()

const [one, other] = [props.names[0] ?? '', props.names[1] ?? '']
const first = ref('')
const second = ref('')

function add(): void {
  if (first.value === '' || (second.value === '' && one !== 'source')) return
  emit('update', [...props.pairs, { [one]: first.value, [other]: second.value }])
  first.value = second.value = ''
}
/** Lines of two cells each, divided by a tab, a semicolon or a comma, as tables are copied and saved; what is there already is replaced. */
function take(text: string): void {
  const read = text
    .split(/\r?\n/)
    .map((line) => line.split(line.includes('\t') ? '\t' : line.includes(';') ? ';' : ','))
    .map((cells) => cells.map((cell) => cell.trim().replaceAll(/^"|"$/g, '')))
    .filter((cells) => cells.length >= 2 && cells[0] !== '')
  const isNew = (pair: Record<string, string>): boolean => !read.some((cells) => cells[0] === pair[one])
  if (read.length > 0) emit('update', [...props.pairs.filter(isNew), ...read.map(([from = '', to = '']) => ({ [one]: from, [other]: to }))])
}
function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!text.trim().includes('\n')) return
  event.preventDefault()
  take(text)
}
async function readFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file !== undefined) take(await file.text())
  input.value = ''
}
const file = ref<HTMLInputElement | null>(null)
const set = (place: number, name: string, value: string): void =>
  emit(
    'update',
    props.pairs.map((pair, at) => (at === place ? { ...pair, [name]: value } : pair)),
  )
</script>

<template>
  <fieldset>
    <legend>{{ label }}</legend>
    <div v-for="(pair, place) in pairs" :key="place" class="line">
      <el-select
        v-if="columns.length > 0"
        :model-value="pair[one] ?? ''"
        size="small"
        filterable
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}`"
        @update:model-value="set(place, one, $event)"
      >
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <CommittedInput
        v-else
        :value="pair[one] ?? ''"
        size="small"
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}`"
        @commit="set(place, one, $event)"
      />
      <CommittedInput
        :value="pair[other] ?? ''"
        size="small"
        :disabled="!mayWork"
        :aria-label="`${label}, ${place + 1}, second`"
        @commit="set(place, other, $event)"
      />
      <el-button
        v-if="mayWork"
        link
        :aria-label="`Remove ${pair[one] ?? ''}`"
        @click="
          emit(
            'update',
            pairs.filter((_, at) => at !== place),
          )
        "
        >Remove</el-button
      >
    </div>
    <p v-if="mayWork && one === 'source'" class="quiet hint">
      Paste two columns of a table into the first field, or
      <el-button link size="small" @click="file?.click()">read them from a file</el-button>.
      <input ref="file" type="file" tabindex="-1" class="unseen" accept=".csv,.tsv,.txt" :aria-label="`${label}: from a file`" @change="readFile" />
    </p>
    <form v-if="mayWork" class="line" @submit.prevent="add" @paste="paste">
      <el-select v-if="columns.length > 0" v-model="first" size="small" filterable :aria-label="`${label}: new`">
        <el-option v-for="name in columns" :key="name" :value="name" :label="name" />
      </el-select>
      <el-input v-else v-model="first" size="small" :aria-label="`${label}: new`" />
      <el-input v-model="second" size="small" :aria-label="`${label}: new, second`" />
      <el-button size="small" native-type="submit">Add</el-button>
    </form>
  </fieldset>
</template>

<style scoped>
.hint {
  margin: 0;
  font-size: 12.5px;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 60px;
  gap: 4px;
  align-items: center;
}
</style>
