<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { className, decisionName } from '@/format/classes'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'
import { sentenceOf } from '@/stations/review/filter'

/** The acts of ruling on this tally, newest first. None is ever removed: undoing one is an act too. */
const props = defineProps<{ acts: readonly Schemas['Ruling'][]; tally: Schemas['Tally']; mayRule: boolean }>()
const emit = defineEmits<{ undo: [id: number]; show: [act: Schemas['Ruling']] }>()
const isOpen = defineModel<boolean>({ required: true })

function about(act: Schemas['Ruling']): string {
  if (act.scope === 'undo') return `undid ruling ${act.target}`
  if (act.scope === 'class') return className(act.target as Schemas['RowClass'])
  if (act.scope === 'selection') return 'chosen findings'
  if (act.scope === 'filter') return act.filter === null ? 'a filter' : sentenceOf(act.filter, props.tally)
  const pattern = props.tally.patterns.find((one) => String(one.number) === act.target)
  return act.scope === 'pattern' && pattern !== undefined ? `${pattern.source}: ${pattern.sentence}` : act.scope === 'cell' ? 'one cell' : 'one row'
}
const why = (act: Schemas['Ruling']): string =>
  [
    act.reason,
    act.ticket ?? '',
    act.asked === null ? '' : `asked: ${act.asked}`,
    act.holdsUpTo === null ? '' : `holds for up to ${count(act.holdsUpTo)} cells in tallies to come`,
    act.holdsFor === null ? '' : `holds for ${act.holdsFor.length} value pairs in tallies to come`,
  ]
    .filter((part) => part !== '')
    .join('; ')
</script>

<template>
  <el-dialog v-model="isOpen" title="Rulings so far" width="min(860px, 95vw)">
    <p v-if="acts.length === 0" class="quiet">Nobody has ruled on this tally yet.</p>
    <table v-else class="figures">
      <thead>
        <tr>
          <th scope="col">no.</th>
          <th scope="col">ruling</th>
          <th scope="col">on</th>
          <th scope="col" class="number">findings</th>
          <th scope="col">reason</th>
          <th scope="col">who and when</th>
          <th scope="col"><span class="unseen">undo</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="act in acts" :key="act.id" :class="{ undone: act.undone }">
          <td>{{ act.id }}</td>
          <td>{{ act.decision === null ? 'Undo' : decisionName(act.decision) }}{{ act.undone ? ' (undone)' : '' }}</td>
          <td>{{ about(act) }}</td>
          <td class="number">
            <el-button v-if="act.decision !== null && !act.undone" link title="Show the findings on which it stands" @click="emit('show', act)">{{
              count(act.findings)
            }}</el-button>
            <template v-else>{{ count(act.findings) }}</template>
          </td>
          <td>{{ why(act) }}</td>
          <td>{{ act.person }}, {{ moment(act.at) }}</td>
          <td><el-button v-if="mayRule && act.scope !== 'undo' && !act.undone" link @click="emit('undo', act.id)">Undo</el-button></td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>

<style scoped>
.undone td {
  color: var(--ink-3);
}
</style>
