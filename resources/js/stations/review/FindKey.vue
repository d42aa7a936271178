<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api } from '@/api/client'
import RowMark from '@/parts/RowMark.vue'

/** Finds a row that did not agree by the beginning of its key. */
const props = defineProps<{ tally: number; columns: readonly string[] }>()
const emit = defineEmits<{ found: [sequence: number] }>()
const text = ref('')
const isOpen = ref(false)
const input = ref<HTMLInputElement | null>(null)

const { data, isFetching } = useQuery({
  queryKey: ['tally', () => props.tally, 'keys', text],
  queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/keys', { params: { path: { tally: props.tally }, query: { find: text.value } }, signal })),
  enabled: () => text.value !== '',
})
function go(sequence: number): void {
  emit('found', sequence)
  text.value = ''
  isOpen.value = false
}
const leave = (event: FocusEvent): void => {
  isOpen.value = (event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)
}
defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <div class="find" @focusout="leave">
    <input
      ref="input"
      v-model="text"
      type="search"
      :placeholder="`Find a key: ${columns.join(',')}`"
      aria-label="Find a key among the rows that do not agree"
      @focus="isOpen = true"
      @keydown.esc="input?.blur()"
      @keydown.enter="data?.items[0] && go(data.items[0].sequence)"
    />
    <ul v-if="isOpen && text !== ''" role="status">
      <li v-for="key in data?.items" :key="key.sequence">
        <button type="button" class="plain" @click="go(key.sequence)">
          <RowMark :row-class="key.class" :side="key.side" /> <span class="cell">{{ key.key }}</span>
        </button>
      </li>
      <li v-if="data?.items.length === 0 && !isFetching" class="quiet">No key that begins so is among the rows that do not agree.</li>
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
