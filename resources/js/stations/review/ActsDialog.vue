<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { whyOf } from '@/format/acts'
import { className, decisionName } from '@/format/classes'
import { count, counted } from '@/format/counts'
import { moment } from '@/format/moments'
import { sentenceOf } from '@/stations/review/filter'

/**
 * The acts of ruling that this tally has, newest first: entered here, or taken over from an earlier one. None is ever removed: undoing one is
 * an act too.
 */
const props = defineProps<{ acts: readonly Schemas['Ruling'][]; tally: Schemas['Tally']; mayRule: boolean }>()
const emit = defineEmits<{ undo: [id: number]; show: [act: Schemas['Ruling']] }>()
const isOpen = defineModel<boolean>({ required: true })
/** The act that is about to be undone, once it was said what that opens again. */
const asking = ref<number | null>(null)
watch(isOpen, () => (asking.value = null))
const isHere = (act: Schemas['Ruling']): boolean => act.tally === undefined || act.tally === props.tally.number

function about(act: Schemas['Ruling']): string {
  if (act.words) return act.words
  if (act.scope === 'undo') return `undid ruling ${act.target}`
  if (act.scope === 'class') return className(act.target as Schemas['RowClass'])
  if (act.scope === 'selection') return 'chosen findings'
  if (act.scope === 'filter') return act.filter === null ? 'a filter' : sentenceOf(act.filter, props.tally)
  const pattern = isHere(act) ? props.tally.patterns.find((one) => String(one.number) === act.target) : undefined
  return act.scope === 'pattern' && pattern !== undefined ? `${pattern.source}: ${pattern.sentence}` : act.scope === 'cell' ? 'one cell' : 'one row'
}
/** More are not listed; the history of each finding has all. */
const MOST = 500
const FEW = 6
const words = ref('')
const shown = computed(() => {
  const wanted = words.value.trim().toLowerCase()
  return props.acts.filter((act) =>
    `${about(act)} ${why(act)} ${act.person} ${decisionName(act.decision ?? 'open')} tally ${act.tally}`.toLowerCase().includes(wanted),
  )
})
const why = (act: Schemas['Ruling']): string =>
  whyOf(
    act,
    act.holdsUpTo === null ? '' : `holds for up to ${count(act.holdsUpTo)} cells in tallies to come`,
    act.holdsFor === null ? '' : `holds for ${act.holdsFor.length} value pairs in tallies to come`,
  )
</script>

<template>
  <el-dialog v-model="isOpen" title="Rulings so far" width="min(1040px, 95vw)">
    <p v-if="acts.length === 0" class="quiet">Nothing is ruled on this tally yet.</p>
    <el-input
      v-if="acts.length > FEW"
      v-model="words"
      class="words"
      size="small"
      clearable
      aria-label="Words of the acts"
      placeholder="person, reason, ticket or what it is on"
    />
    <table v-if="acts.length > 0" class="figures">
      <thead>
        <tr>
          <th scope="col">no.</th>
          <th scope="col">ruling</th>
          <th scope="col">on</th>
          <th scope="col">tally</th>
          <th scope="col" class="number">findings</th>
          <th scope="col" class="number">stands here on</th>
          <th scope="col">reason</th>
          <th scope="col">who and when</th>
          <th scope="col"><span class="unseen">undo</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="act in shown" :key="act.id" :class="{ undone: act.undone }">
          <td>{{ act.id }}</td>
          <td>{{ act.decision === null ? 'Undo' : decisionName(act.decision) }}{{ act.undone ? ' (undone)' : '' }}</td>
          <td>{{ about(act) }}</td>
          <td>{{ isHere(act) ? '' : act.tally }}</td>
          <td class="number">{{ count(act.findings) }}</td>
          <td class="number">
            <el-button v-if="(act.standing ?? 0) > 0" link title="Show the findings on which it stands" @click="emit('show', act)">{{
              count(act.standing ?? 0)
            }}</el-button>
            <template v-else>{{ act.decision === null ? '' : '0' }}</template>
          </td>
          <td>{{ why(act) }}</td>
          <td>{{ act.person }}, {{ moment(act.at) }}</td>
          <td>
            <template v-if="mayRule && act.scope !== 'undo' && !act.undone">
              <el-button v-if="asking !== act.id" link @click="asking = act.id">Undo</el-button>
              <el-button v-else type="primary" size="small" @click="emit('undo', act.id)"
                >Undo: {{ (act.standing ?? 0) === 0 ? 'nothing opens here' : `opens ${counted(act.standing ?? 0, 'finding')}` }}</el-button
              >
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="acts.length > 0 && shown.length === 0" class="quiet">No act has these words.</p>
    <p v-if="acts.length >= MOST" class="quiet">
      These are the newest {{ count(MOST) }}; what was ruled before stands with each finding, under “Every ruling on it”.
    </p>
  </el-dialog>
</template>

<style scoped>
.words {
  max-inline-size: 320px;
  margin-block-end: 8px;
}
.undone td {
  color: var(--ink-3);
}
</style>
