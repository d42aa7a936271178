<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import { useRulings } from '@/stations/review/useRulings'
import { scoreSaid, type NearPair } from '@/stations/review/near/nearKeys'

/** Two rows are alike that should not be: one act of ruling on both, with why they are. */
const props = defineProps<{ tally: number; pair: NearPair }>()
const emit = defineEmits<{ close: []; ruled: [] }>()
const DECISIONS = [
  { decision: 'defect', name: 'a defect: they must not be alike' },
  { decision: 'expected', name: 'expected: known, and right' },
] as const

const decision = ref<Schemas['Decision']>('defect')
const reason = ref(`Alike at ${scoreSaid(props.pair.score)}: ${props.pair.reason}.`)
const ticket = ref('')
const { rule } = useRulings(computed(() => props.tally))
async function send(): Promise<void> {
  await rule.mutateAsync({
    scope: 'selection',
    filter: { of: 'rows', sequences: [props.pair.source.sequence, props.pair.target.sequence] },
    decision: decision.value,
    reason: reason.value.trim(),
    ticket: ticket.value.trim(),
    askedId: null,
  })
  emit('ruled')
}
const submit = (): void => void send().catch(() => undefined)
</script>

<template>
  <el-dialog :model-value="true" width="min(560px, 94vw)" title="Two rows that should not be alike" @close="emit('close')">
    <form @submit.prevent="submit">
      <p>
        <b>{{ pair.source.key }}</b> and <b>{{ pair.target.key }}</b> are ruled on together. The ruling stands in the report with both findings, and goes on
        with the next tally while both rows are the same.
      </p>
      <label
        ><span>They are</span>
        <el-select v-model="decision" aria-label="What it is">
          <el-option v-for="one in DECISIONS" :key="one.decision" :value="one.decision" :label="one.name" /> </el-select
      ></label>
      <label><span>Why</span><el-input v-model="reason" type="textarea" :rows="3" maxlength="2000" aria-label="Why" /></label>
      <label><span>Ticket</span><el-input v-model="ticket" maxlength="100" aria-label="Ticket" /></label>
      <ErrorNote :error="rule.error.value" />
      <div class="buttons">
        <el-button @click="emit('close')">Cancel</el-button>
        <el-button type="primary" native-type="submit" :disabled="reason.trim() === ''" :loading="rule.isPending.value">Rule on both</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
.buttons {
  display: flex;
  justify-content: end;
  gap: 8px;
}
</style>
