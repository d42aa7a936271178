<script setup lang="ts">
import { reactive, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'

/** Each limit with its figure, those that fail first; who may waives one there. */
const props = defineProps<{ limits: readonly Schemas['HeldLimit'][]; mayWaive: boolean; isBusy: boolean }>()
const emit = defineEmits<{ waive: [said: { limit: string; reason: string; endsOn?: string; ticket?: string | null; isLifted?: boolean }] }>()

const MONTH = 30 * 86_400_000
const chosen = ref<string | null>(null)
const said = reactive({ reason: '', endsOn: '', ticket: '' })
function choose(id: string): void {
  chosen.value = chosen.value === id ? null : id
  Object.assign(said, { reason: '', ticket: '', endsOn: new Date(Date.now() + MONTH).toISOString().slice(0, 10) })
}
function enter(limit: Schemas['HeldLimit']): void {
  emit(
    'waive',
    limit.waiver === null
      ? { limit: limit.id, reason: said.reason, endsOn: said.endsOn, ticket: said.ticket || null }
      : { limit: limit.id, reason: said.reason, isLifted: true },
  )
  chosen.value = null
}
const isPassed = (limit: Schemas['HeldLimit']): boolean => limit.state === 'holds' || limit.waiver !== null
</script>

<template>
  <ul>
    <li v-for="limit in props.limits" :key="limit.id">
      <div class="line">
        <RouterLink :to="limit.link" data-figure="sign-off/limits">{{ limit.words }}</RouterLink>
        <b :class="limit.state === 'holds' ? 'holds' : limit.waiver === null ? 'fails' : 'waived'" data-figure="sign-off/limits"
          >{{ isPassed(limit) ? (limit.waiver === null ? '✓' : '~') : '✗' }} {{ limit.value }}</b
        >
      </div>
      <p class="quiet">
        <template v-if="limit.distance !== null"
          ><span data-figure="sign-off/limits">{{ limit.distance }}</span></template
        ><template v-if="limit.isInherited">{{ limit.distance === null ? '' : ', ' }}limit of the migration</template>
        <button v-if="mayWaive && limit.state !== 'holds'" type="button" class="plain as-link" :aria-expanded="chosen === limit.id" @click="choose(limit.id)">
          {{ limit.waiver === null ? 'Waive it' : 'Take the waiver back' }}
        </button>
      </p>
      <p v-if="limit.waiver" class="waiver">
        Waived by {{ limit.waiver.by }}, {{ moment(limit.waiver.at) }}, until <span data-ordinal>{{ limit.waiver.endsOn }}</span>:
        <span class="cell said">{{ limit.waiver.reason }}</span><span v-if="limit.waiver.ticket" class="cell said"> ({{ limit.waiver.ticket }})</span>
      </p>
      <form v-if="chosen === limit.id" @submit.prevent="enter(limit)">
        <el-input v-model="said.reason" type="textarea" :rows="2" maxlength="2000" aria-label="Why" placeholder="Why: the report shows it first" />
        <template v-if="limit.waiver === null">
          <label for="waive-until">until</label>
          <input id="waive-until" v-model="said.endsOn" type="date" />
          <el-input v-model="said.ticket" maxlength="200" aria-label="Ticket" placeholder="ticket, if there is one" />
        </template>
        <el-button type="primary" native-type="submit" :loading="isBusy" :disabled="said.reason.trim() === ''">{{
          limit.waiver === null ? 'Waive it for no worse a figure' : 'Take it back'
        }}</el-button>
      </form>
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  font-size: 13.5px;
}
.said {
  font: inherit;
  white-space: pre-wrap;
}
p .plain {
  margin-inline-start: 8px;
}
.line a {
  color: inherit;
  overflow-wrap: anywhere;
}
b {
  text-align: end;
  max-inline-size: 150px;
}
.holds {
  color: var(--pass);
}
.fails {
  color: var(--fail);
}
p {
  margin: 2px 0 0;
  font-size: 12.5px;
}
.waiver {
  border-inline-start: 3px solid var(--fail);
  padding-inline-start: 8px;
  overflow-wrap: anywhere;
}
form {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 8px;
  align-items: center;
  margin-block-start: 6px;
}
form > :first-child,
form > :last-child,
form > :nth-last-child(2):not(:first-child) {
  grid-column: 1 / -1;
}
input[type='date'] {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 8px;
  font: inherit;
}
</style>
