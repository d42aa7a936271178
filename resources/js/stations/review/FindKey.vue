<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { keyCells } from '@/format/key'
import RowMark from '@/parts/RowMark.vue'

/** Finds a row that did not agree by the beginning of its key, and any other by its whole key. */
const props = defineProps<{ tally: number; columns: readonly string[]; areMasked: boolean }>()
const emit = defineEmits<{ found: [sequence: number]; agreeing: [record: Schemas['Record']] }>()
const text = ref('')
const isOpen = ref(false)
const input = ref<HTMLInputElement | null>(null)

const { data, isFetching } = useQuery({
  queryKey: ['tally', () => props.tally, 'keys', text],
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/keys', { params: { path: { tally: props.tally }, query: { find: text.value } }, signal })),
  enabled: () => text.value !== '',
})
const key = computed(() => keyCells(text.value))
const isWhole = computed(() => key.value.length === props.columns.length && key.value.every((cell) => cell !== ''))
const isAmongFindings = computed(() => data.value?.items.some((item) => item.key === text.value) ?? false)
/** Rows that agree are looked for on both sides. The first time a worker has to look through them. */
const LOOK_AGAIN = 700
const agreeing = useQuery({
  queryKey: ['tally', () => props.tally, 'agreeing', key],
  queryFn: ({ signal }) =>
    answer(api.GET('/tallies/{tally}/agreeing-row', { params: { path: { tally: props.tally }, query: { 'key[]': key.value } }, signal })),
  enabled: () => isWhole.value && data.value !== undefined && !isAmongFindings.value,
  refetchInterval: (query) => (query.state.data?.isWaiting === true ? LOOK_AGAIN : false),
})
const same = computed(() => (isWhole.value && !isAmongFindings.value ? agreeing.data.value : undefined))
function show(record: Schemas['Record']): void {
  emit('agreeing', record)
  text.value = ''
  isOpen.value = false
}
function enter(): void {
  const first = data.value?.items[0]
  if (same.value?.record) show(same.value.record)
  else if (first !== undefined) go(first.sequence)
}
function go(sequence: number): void {
  emit('found', sequence)
  text.value = ''
  isOpen.value = false
}
const leave = (event: FocusEvent): void => {
  isOpen.value = (event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)
}
/** A row that an address names is shown as soon as it is found, and only then. */
const isLookedFor = ref(false)
function lookFor(whole: string): void {
  text.value = whole
  isOpen.value = isLookedFor.value = true
}
watch([data, same], () => {
  if (!isLookedFor.value || data.value === undefined) return
  const item = data.value.items.find((one) => one.key === text.value)
  if (item === undefined && (same.value === undefined || same.value.isWaiting)) return
  isLookedFor.value = false
  if (item !== undefined) go(item.sequence)
  else if (same.value?.record) show(same.value.record)
})
defineExpose({ focus: () => input.value?.focus(), lookFor })
</script>

<template>
  <div class="find" @focusout="leave">
    <input
      ref="input"
      v-model="text"
      type="search"
      :disabled="areMasked"
      :placeholder="areMasked ? 'Keys are masked' : `Find a key: ${columns.join(',')}`"
      aria-label="Find a key"
      @focus="isOpen = true"
      @keydown.esc="input?.blur()"
      @keydown.enter="enter"
    />
    <ul v-if="isOpen && text !== ''" role="status">
      <li v-for="item in data?.items" :key="item.sequence">
        <button type="button" class="plain" @click="go(item.sequence)">
          <RowMark :row-class="item.class" :side="item.side" /> <span class="cell">{{ item.key }}</span>
        </button>
      </li>
      <li v-if="same?.record">
        <button type="button" class="plain" @click="show(same.record)">
          <RowMark row-class="agreed" /> <span class="cell">{{ same.record.key }}</span> <span class="quiet">agrees</span>
        </button>
      </li>
      <li v-else-if="same?.isWaiting" class="quiet">
        looking through the rows that agree …<template v-if="same.total > 0"> {{ Math.floor((same.done / same.total) * 100) }} %</template>
      </li>
      <li v-else-if="same?.problem" class="quiet">{{ same.problem }}</li>
      <li v-else-if="same && data?.items.length === 0" class="quiet">No row of both sides has this key.</li>
      <li v-if="data?.items.length === 0 && !isFetching && !isWhole" class="quiet">
        No key that begins so is among the rows that do not agree. Type a key to its end to find it among those that agree.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.find {
  position: relative;
}
input {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 9px;
  inline-size: 200px;
  font-size: 13px;
}
ul {
  position: absolute;
  z-index: 5;
  inset-inline-end: 0;
  inset-block-start: 36px;
  min-inline-size: 100%;
  max-block-size: 320px;
  overflow: auto;
  margin: 0;
  padding: 4px 0;
  list-style: none;
  background: var(--sheet);
  border: 1px solid var(--ink);
}
li {
  padding: 3px 10px;
  font-size: 13px;
}
</style>
