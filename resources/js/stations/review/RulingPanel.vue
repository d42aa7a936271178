<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { decisionName } from '@/format/classes'
import { counted } from '@/format/counts'
import type { Target, Why } from '@/stations/review/useRulings'

const props = defineProps<{
  target: Target | null
  chosen: number
  /** what Shift means: all that the filter means, in words */
  all: string | null
  people: readonly Schemas['PersonOfMigration'][]
  isBusy: boolean
}>()
const emit = defineEmits<{ rule: [decision: Schemas['Decision']] }>()
const why = defineModel<Why>('why', { required: true })

const decisions = ['expected', 'defect', 'ask', 'open'] as const
const about = computed(() => {
  if (props.target === null) return 'Choose a finding to rule on it.'
  const some =
    props.target.scope === 'selection' ? `Applies to the ${counted(props.chosen, 'finding')} that you chose.` : `Applies to this ${props.target.scope}.`
  return props.all === null ? some : `${some} With Shift in the list: to all ${props.all}.`
})
</script>

<template>
  <section class="panel" aria-label="Ruling">
    <div class="options">
      <button v-for="decision in decisions" :key="decision" type="button" :disabled="target === null || isBusy" @click="emit('rule', decision)">
        {{ decisionName(decision) }}<kbd aria-hidden="true">{{ decision[0] }}</kbd>
      </button>
    </div>
    <el-input id="ruling-reason" v-model="why.reason" placeholder="Reason" aria-label="Reason" maxlength="2000" />
    <div class="more">
      <el-input v-model="why.ticket" size="small" placeholder="Ticket" aria-label="Ticket" maxlength="100" />
      <el-select v-model="why.askedId" :persistent="false" size="small" clearable placeholder="Who to ask" aria-label="Who to ask">
        <el-option v-for="person in people" :key="person.id" :value="person.id" :label="`${person.name}, ${person.role}`" />
      </el-select>
    </div>
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
.more {
  display: grid;
  grid-template-columns: 2fr 3fr;
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
