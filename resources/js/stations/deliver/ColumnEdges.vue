<script setup lang="ts">
import { computed, ref } from 'vue'

/** Where the columns of fixed-width text begin: set with the mouse between two characters, moved and removed with the keys. */
const props = defineProps<{ lines: readonly string[]; starts: readonly number[]; isBusy: boolean }>()
const emit = defineEmits<{ change: [starts: number[]] }>()

const CHARACTER = '1ch'
const width = computed(() => Math.max(20, ...props.lines.map((line) => [...line].length)))
const edges = computed(() => props.starts.filter((start) => start > 0))
const text = ref<HTMLElement | null>(null)

const set = (starts: readonly number[]): void =>
  emit(
    'change',
    [...new Set([0, ...starts])].sort((a, b) => a - b),
  )

function toggleAt(event: MouseEvent): void {
  if (text.value === null || props.isBusy) return
  const box = text.value.getBoundingClientRect()
  const place = Math.round(((event.clientX - box.left) / box.width) * width.value)
  if (place > 0) set(edges.value.includes(place) ? edges.value.filter((edge) => edge !== place) : [...edges.value, place])
}

function onKey(event: KeyboardEvent, edge: number): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  if (by !== undefined && edge + by > 0) set(edges.value.map((one) => (one === edge ? edge + by : one)))
  else if (event.key === 'Delete' || event.key === 'Backspace') set(edges.value.filter((one) => one !== edge))
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="edges" role="group" aria-label="Where columns begin">
    <div ref="text" class="text" :style="{ inlineSize: `calc(${width} * ${CHARACTER})` }" @click="toggleAt">
      <div v-for="(line, number) in lines" :key="number" class="line">{{ line === '' ? ' ' : line }}</div>
      <span
        v-for="(edge, nth) in edges"
        :key="nth"
        class="edge"
        role="slider"
        tabindex="0"
        :aria-label="`Column ${nth + 2} begins after`"
        :aria-valuenow="edge"
        :aria-valuetext="`${edge} characters`"
        aria-valuemin="1"
        :aria-valuemax="width"
        :style="{ insetInlineStart: `calc(${edge} * ${CHARACTER})` }"
        @click.stop
        @keydown="onKey($event, edge)"
      ></span>
    </div>
    <p class="quiet">Click between two characters to set or take away an edge; arrow keys move the chosen one, Delete takes it away.</p>
  </div>
</template>

<style scoped>
.edges {
  overflow-x: auto;
  border: 1px solid var(--line);
  padding: 6px 8px 4px;
}
.text {
  position: relative;
  font-family: var(--cell);
  font-size: 13px;
  cursor: col-resize;
}
.line {
  white-space: pre;
  line-height: 20px;
}
.edge {
  position: absolute;
  inset-block: 0;
  inline-size: 9px;
  margin-inline-start: -4.5px;
  background: linear-gradient(var(--ink), var(--ink)) center / 2px 100% no-repeat;
}
p {
  margin: 4px 0 0;
  font-size: 12px;
}
</style>
