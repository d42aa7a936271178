<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { singleLettersAreOn } from '@/composables/useShortcuts'
import { useVirtualRows } from '@/composables/useVirtualRows'
import LoadState from '@/parts/LoadState.vue'
import FindingLine from '@/stations/review/FindingLine.vue'
import { type Choice, type Finding, PAGE, useFindings } from '@/stations/review/useFindings'

const props = defineProps<{ tally: Schemas['Tally']; choice: Choice }>()
const emit = defineEmits<{ look: [finding: Finding | null]; rule: [decision: Schemas['Decision']]; ruleAll: [decision: Schemas['Decision']] }>()

const ROW_HEIGHT = 34
const scroller = ref<HTMLElement | null>(null)
const chosen = ref(0)
const inSight = ref<number[]>([])
const { first, total, at } = useFindings(
  computed(() => props.tally.id),
  toRef(() => props.choice),
  inSight,
)
const { height, rows, offset, goTo, fits } = useVirtualRows(scroller, () => total.value, ROW_HEIGHT)

watch(
  rows,
  (seen) => {
    const pages = new Set([...seen, chosen.value].map((index) => Math.floor(index / PAGE)))
    inSight.value = [...pages].sort((a, b) => a - b)
  },
  { immediate: true },
)
watch(
  () => props.choice,
  () => {
    chosen.value = 0
    if (scroller.value !== null) scroller.value.scrollTop = 0
  },
)

// The finding under the cursor is looked at as soon as it is there, and again when its ruling has changed.
const current = computed(() => at(chosen.value))
watch(current, (finding) => emit('look', finding ?? null), { immediate: true })

function move(to: number): void {
  chosen.value = Math.max(0, Math.min(total.value - 1, to))
  goTo(chosen.value)
}
defineExpose({
  goTo: (index: number) => {
    move(index)
    scroller.value?.focus()
  },
})

const decisions: Record<string, Schemas['Decision']> = { e: 'expected', d: 'defect', a: 'ask', o: 'open' }
function press(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const letters = singleLettersAreOn()
  const decision = letters ? decisions[event.key.toLowerCase()] : undefined
  const page = Math.max(1, Math.floor(fits.value) - 1)
  const moves: Record<string, number> = {
    ArrowDown: 1,
    ArrowUp: -1,
    PageDown: page,
    PageUp: -page,
    Home: -total.value,
    End: total.value,
    ...(letters ? { n: 1, p: -1 } : {}),
  }
  const step = moves[event.key]
  if (decision !== undefined) {
    if (event.shiftKey) emit('ruleAll', decision)
    else emit('rule', decision)
  } else if (step !== undefined) {
    move(chosen.value + step)
  } else {
    return
  }
  event.preventDefault()
}
const headings = computed(() =>
  props.choice.kind === 'cells'
    ? [props.tally.keyColumns.join(', '), 'source', 'target', 'ruling']
    : [props.tally.keyColumns.join(', '), 'the row begins with', 'ruling'],
)
</script>

<template>
  <div class="list">
    <div class="heading" :class="choice.kind" aria-hidden="true">
      <span /><span v-for="name in headings" :key="name">{{ name }}</span>
    </div>
    <LoadState :is-loading="false" :error="first.error.value" what="Findings" @retry="first.refetch()">
      <div
        ref="scroller"
        class="scroller"
        tabindex="0"
        role="listbox"
        aria-label="Findings"
        :aria-activedescendant="total > 0 ? `finding-${chosen}` : undefined"
        :aria-busy="first.isFetching.value"
        @keydown="press"
      >
        <div :style="{ blockSize: `${height}px` }" class="all">
          <div class="drawn" :style="{ transform: `translateY(${offset}px)` }">
            <FindingLine
              v-for="index in rows"
              :id="`finding-${index}`"
              :key="index"
              :finding="at(index)"
              :is-chosen="index === chosen"
              :place="index + 1"
              :total="total"
              @click="move(index)"
            />
          </div>
        </div>
      </div>
    </LoadState>
  </div>
</template>

<style scoped>
.list {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
  flex: 1;
}
.heading {
  display: grid;
  gap: 10px;
  padding: 7px 14px;
  font-size: 12px;
  color: var(--ink-3);
  font-weight: 600;
  border-block-end: 1px solid var(--line);
  background: var(--sheet);
  /* as wide as the rows below, whether or not they scroll */
  overflow: hidden;
  scrollbar-gutter: stable;
}
.heading span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.heading.cells {
  grid-template-columns: 30px 128px minmax(0, 1fr) minmax(0, 1fr) 84px;
}
.heading.rows {
  grid-template-columns: 30px 128px minmax(0, 1fr) 84px;
}
.scroller {
  flex: 1;
  min-block-size: 0;
  overflow: hidden auto;
  scrollbar-gutter: stable;
  background: var(--sheet);
}
.scroller:focus-visible {
  outline-offset: -2px;
  box-shadow: none;
}
.all {
  overflow: hidden;
}
</style>
