<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { nearDifference, type Stretch } from '@/format/difference'
import CellValue from '@/parts/CellValue.vue'
import { type RuleOfPattern, ruleOfPattern } from '@/stations/review/ruleOfPattern'
import type { Choice } from '@/stations/review/useFindings'

const props = defineProps<{
  tally: Schemas['Tally']
  choice: Choice
  pattern: Schemas['Pattern'] | undefined
  standing: Schemas['Standing'] | null
  mayWork: boolean
}>()
const emit = defineEmits<{ makeRule: [rule: RuleOfPattern] }>()
const rule = computed(() => (props.pattern === undefined || !props.mayWork ? null : ruleOfPattern(props.pattern)))
const EXAMPLES = 3
const LONGEST = 24

const sentences: Record<Schemas['RowClass'], string> = {
  missing: 'In the source, and no row of the target has their key.',
  extra: 'In the target, and no row of the source has their key.',
  repeated: 'Share their key with another row on at least one side: set aside, and compared with none.',
  unkeyed: 'Every cell of the key is blank, so there is nothing to meet by.',
  refused: 'Could not be read as rows. They are put right in a new delivery.',
  changed: 'Met their counterpart, and at least one compared cell differs.',
}
const sentence = computed(() => {
  const rowClass = props.choice.kind === 'rows' ? props.choice.rowClass : null
  return rowClass === null ? 'Every row that does not agree, in the order of the source; then those that only the target has.' : sentences[rowClass]
})
/** Examples stand in a sentence, so they are cut at both ends. */
function shorten(stretches: Stretch[]): Stretch[] {
  let room = LONGEST
  return stretches.flatMap((stretch) => {
    const text = room <= 0 ? '' : stretch.text.length > room ? `${stretch.text.slice(0, room)}…` : stretch.text
    room -= stretch.text.length
    return text === '' ? [] : [{ text, differs: stretch.differs }]
  })
}
const examples = computed(() =>
  (props.pattern?.examples ?? []).slice(0, EXAMPLES).map((example) => {
    const marked = nearDifference(example.source, example.target)
    return { source: shorten(marked.source), target: shorten(marked.target) }
  }),
)
/** What is looked at, to be taken away whole. */
const take = (as: 'csv' | 'json-lines' | 'workbook'): string => {
  const { choice } = props
  const filter = choice.kind === 'cells' ? `&pattern=${choice.pattern}` : choice.rowClass === null ? '' : `&class=${choice.rowClass}`
  return `/api/v1/tallies/${props.tally.id}/findings.csv?as=${as}${filter}`
}
const ruled = computed(() => {
  if (props.standing === null) return ''
  const parts = (['expected', 'defect', 'ask', 'open'] as const).map((decision) => ({ decision, findings: props.standing?.[decision] ?? 0 }))
  return parts
    .filter(({ findings }) => findings > 0)
    .map(({ decision, findings }) => `${count(findings)} ${decision}`)
    .join(', ')
})
</script>

<template>
  <div class="head">
    <p v-if="pattern">
      <b>{{ pattern.source }}</b>: {{ pattern.sentence }}.
      <template v-for="(example, position) in examples" :key="position"
        ><template v-if="position > 0">, </template><CellValue :stretches="example.source" side="source" /> became
        <CellValue :stretches="example.target" side="target"
      /></template>
      <template v-if="pattern.examples.length > EXAMPLES"> and more</template>.
    </p>
    <p v-else>{{ sentence }}</p>
    <span class="quiet">{{ ruled }}</span>
    <span class="quiet take"
      >Take these away as <a :href="take('csv')" download>CSV</a>, <a :href="take('json-lines')" download>JSON Lines</a> or
      <a :href="take('workbook')" download>workbook</a></span
    >
    <el-button v-if="rule" link size="small" title="The trial in Match shows what it would change before it is tallied." @click="emit('makeRule', rule)">{{
      rule.label
    }}</el-button>
  </div>
</template>

<style scoped>
.head {
  padding: 8px 14px;
  background: #eef2f5;
  border-block-end: 1px solid var(--line);
  font-size: 13.5px;
  display: flex;
  gap: 4px 12px;
  flex-wrap: wrap;
  justify-content: space-between;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
p :deep(.cell) {
  white-space: pre-wrap;
}
.take {
  font-size: 12.5px;
}
</style>
