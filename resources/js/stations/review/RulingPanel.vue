<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { decisionName } from '@/format/classes'
import type { Target } from '@/stations/review/useRulings'

const props = defineProps<{ target: Target | null; group: (Target & { standing: Schemas['Standing'] }) | null; isBusy: boolean }>()
const emit = defineEmits<{ rule: [decision: Schemas['Decision']] }>()
const reason = defineModel<string>('reason', { required: true })

const decisions = ['expected', 'defect', 'ask', 'open'] as const
const about = computed(() => {
  if (props.target === null) return 'Choose a finding to rule on it.'
  const one = props.target.scope === 'cell' ? 'Applies to this cell.' : 'Applies to this row.'
  return props.group === null
    ? one
    : `${one} With Shift in the list: to all ${props.group.standing.findings.toLocaleString('en-GB')} of the ${props.group.scope === 'pattern' ? 'pattern' : 'class'}.`
})
</script>

<template>
  <section class="panel" aria-label="Ruling">
    <div class="options">
      <button v-for="decision in decisions" :key="decision" type="button" :disabled="target === null || isBusy" @click="emit('rule', decision)">
        {{ decisionName(decision) }}<kbd aria-hidden="true">{{ decision[0] }}</kbd>
      </button>
    </div>
    <el-input id="ruling-reason" v-model="reason" placeholder="Reason, ticket, or who to ask" aria-label="Reason, ticket, or who to ask" />
    <p class="quiet">{{ about }}</p>
  </section>
</template>

<style scoped>
.panel {
  border-block-start: 1px solid var(--line);
  padding: 10px 14px;
  background: var(--floor);
  display: grid;
  gap: 8px;
}
.options {
  display: flex;
  gap: 6px;
}
button {
  flex: 1;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 0;
  background: var(--sheet);
  font-weight: 600;
  font-size: 13px;
  cursor: pointer;
}
button:disabled {
  color: var(--ink-3);
  cursor: default;
}
kbd {
  font: 12px var(--cell);
  color: var(--ink-3);
  margin-inline-start: 4px;
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
