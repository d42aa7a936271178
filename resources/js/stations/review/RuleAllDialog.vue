<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { decisionName } from '@/format/classes'
import { counted } from '@/format/counts'
import type { Target } from '@/stations/review/useRulings'

const props = defineProps<{ group: Target & { standing: Schemas['Standing'] }; decision: Schemas['Decision'] | null; reason: string }>()
const emit = defineEmits<{ rule: [decision: Schemas['Decision'], reason: string] }>()
const isOpen = defineModel<boolean>({ required: true })

const decisions = ['expected', 'defect', 'ask', 'open'] as const
const chosen = ref<Schemas['Decision']>('expected')
const why = ref('')
watch(isOpen, (open) => {
  if (open) {
    chosen.value = props.decision ?? 'expected'
    why.value = props.reason
  }
})
const figure = computed(() => counted(props.group.standing.findings, 'finding'))
</script>

<template>
  <el-dialog v-model="isOpen" :title="`Rule on all ${figure}`" width="440">
    <form class="form" @submit.prevent="emit('rule', chosen, why)">
      <fieldset>
        <legend>What they are</legend>
        <label v-for="one in decisions" :key="one"><input v-model="chosen" type="radio" name="decision" :value="one" /> {{ decisionName(one) }}</label>
      </fieldset>
      <label for="all-reason">Reason, ticket, or who to ask</label>
      <el-input id="all-reason" v-model="why" type="textarea" :rows="2" />
      <p class="quiet">Earlier rulings on single findings among them no longer stand. You can undo this.</p>
      <el-button type="primary" native-type="submit">Rule {{ decisionName(chosen).toLowerCase() }} on {{ figure }}</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 16px;
}
legend {
  padding: 0;
  font-weight: 600;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
