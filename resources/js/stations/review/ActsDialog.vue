<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { className, decisionName } from '@/format/classes'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'

/** The acts of ruling on this tally, newest first. None is ever removed: undoing one is an act too. */
const props = defineProps<{ acts: readonly Schemas['Ruling'][]; tally: Schemas['Tally']; mayRule: boolean }>()
const emit = defineEmits<{ undo: [id: number] }>()
const isOpen = defineModel<boolean>({ required: true })

function about(act: Schemas['Ruling']): string {
  if (act.scope === 'undo') return `undid ruling ${act.target}`
  if (act.scope === 'class') return className(act.target as Schemas['RowClass'])
  const pattern = props.tally.patterns.find((one) => String(one.number) === act.target)
  return act.scope === 'pattern' && pattern !== undefined ? `${pattern.source}: ${pattern.sentence}` : act.scope === 'cell' ? 'one cell' : 'one row'
}
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
          <td class="number">{{ count(act.findings) }}</td>
          <td>{{ act.reason }}</td>
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
