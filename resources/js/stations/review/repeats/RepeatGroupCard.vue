<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '@/api/client'
import type { Side } from '@/composables/draftChanges'
import { isApart, signed } from '@/format/amounts'
import { count } from '@/format/counts'
import RepeatRows from '@/stations/review/repeats/RepeatRows.vue'
import { comparedColumns, type Choice, type Group } from '@/stations/review/repeats/repeats'

/** Rows of both sides that share values, next to each other; a person may say which of a side is kept, and why. */
const props = defineProps<{
  course: Schemas['Course']
  group: Group
  /** in the look */
  place: number
  columns: Schemas['RepeatsFound']['columns']
  shared: Record<Side, string[]>
  pairs: readonly Schemas['KeyColumn'][]
  isAll: boolean
  mayChoose: boolean
}>()
const emit = defineEmits<{ choose: [choice: Choice] }>()
const SIDES = ['source', 'target'] as const
const label = (side: Side): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel)

function keyOf(): string {
  const side = props.group.source.count > 0 ? ('source' as const) : ('target' as const)
  return props.shared[side].map((name) => props.group[side].rows[0]?.cells[props.columns[side].indexOf(name)] ?? '').join(', ')
}
const times = (): string =>
  SIDES.map((side) => `${props.group[side].count === 0 ? 'none' : count(props.group[side].count)} in the ${label(side).toLowerCase()}`).join(', ')
const surplus = (): string =>
  SIDES.filter((side) => isApart(props.group[side].surplus))
    .map((side) => `; ${signed(props.group[side].surplus)} in the ${label(side).toLowerCase()}`)
    .join('')
const kind = (): string => {
  const { source, target } = props.group
  return source.isConflict || target.isConflict ? 'conflict' : source.isByForm || target.isByForm ? 'copies in another form' : 'copies'
}

const asking = ref<{ side: Side; row: number } | null>(null)
const reason = ref('')
const input = useTemplateRef<{ focus: () => void }>('input')
async function choose(side: Side, row: number | null): Promise<void> {
  if (row === null) {
    emit('choose', { side, group: props.place, row: null, reason: null })
    return
  }
  asking.value = { side, row }
  await nextTick()
  input.value?.focus()
}
function keep(): void {
  if (asking.value === null || reason.value.trim() === '') return
  emit('choose', { ...asking.value, group: props.place, reason: reason.value })
  asking.value = null
  reason.value = ''
}
</script>

<template>
  <article>
    <h4>
      <span class="cell">{{ keyOf() }}</span>
      <span class="quiet">{{ kind() }}; {{ times() }}{{ surplus() }}</span>
    </h4>
    <form v-if="asking !== null" class="why" @submit.prevent="keep" @keydown.esc.stop="asking = null">
      <label
        >Why this row is kept
        <el-input ref="input" v-model="reason" maxlength="2000" aria-label="Why this row is kept" />
      </label>
      <el-button size="small" native-type="submit" :disabled="reason.trim() === ''">Keep it</el-button>
      <el-button size="small" @click="asking = null">Cancel</el-button>
    </form>
    <div class="beside" :class="{ single: group.source.count === 0 || group.target.count === 0 }">
      <div v-for="side in SIDES" :key="side" class="rows" tabindex="0" role="region" :aria-label="`Rows of the ${label(side)}`">
        <RepeatRows
          :side="side"
          :rows="group[side]"
          :columns="columns[side]"
          :shared="shared[side]"
          :compared="comparedColumns(group, side, pairs)"
          :is-all="isAll"
          :may-choose="mayChoose"
          @choose="choose(side, $event)"
        />
        <p v-if="group[side].kept" class="quiet">Kept by hand: {{ group[side].kept.reason }}</p>
      </div>
    </div>
  </article>
</template>

<style scoped>
article {
  border-block-start: 1px solid var(--line);
  padding: 8px 14px;
}
h4 {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  margin: 0 0 4px;
  font-size: 13px;
  overflow-wrap: anywhere;
}
.beside {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.rows {
  overflow-x: auto;
  min-inline-size: 0;
}
.rows p {
  margin: 2px 8px 0;
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
.why {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin-block-end: 6px;
  font-size: 13px;
}
.why label {
  display: grid;
  flex: 1 1 260px;
}
.single:has(> :first-child table) {
  grid-template-columns: 4fr 1fr;
}
.single:has(> :last-child table) {
  grid-template-columns: 1fr 4fr;
}
@media (width < 900px) {
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
