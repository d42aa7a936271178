<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { decisionName } from '@/format/classes'
import { count } from '@/format/counts'
import type { Holds, Why } from '@/stations/review/useRulings'
import { ASK_ABOVE } from '@/stations/review/useRulingOnMany'
import { missing } from '@/stations/review/useWhy'

/** Rules on everything that a filter means. On a whole pattern it can hold for tallies to come too. */
const props = defineProps<{
  tally: number
  words: string
  pattern: number | null
  cells: number
  /** how many findings it is about */
  findings: number
  decision: Schemas['Decision'] | null
  why: Why
  people: readonly Schemas['PersonOfMigration'][]
}>()
const emit = defineEmits<{ rule: [decision: Schemas['Decision'], why: Why, holds: Holds] }>()
const isOpen = defineModel<boolean>({ required: true })

const decisions = ['expected', 'defect', 'ask', 'open'] as const
const chosen = ref<Schemas['Decision'] | null>(null)
const entered = ref<Why>({ reason: '', ticket: '', askedId: null })
const future = ref<'no' | 'up-to' | 'pairs'>('no')
const upTo = ref('')
/** Of very many the number is said again, by hand. */
const again = ref('')
const isSaidAgain = computed(() => props.findings <= ASK_ABOVE || again.value.replaceAll(/\D/g, '') === String(props.findings))
watch(isOpen, (open) => {
  if (!open) return
  chosen.value = props.decision
  entered.value = { ...props.why }
  future.value = 'no'
  upTo.value = String(props.cells)
  again.value = ''
})
const pairs = useQuery({
  queryKey: ['tally', () => props.tally, 'value-pairs', () => props.pattern],
  queryFn: ({ signal }) =>
    answer(api.GET('/tallies/{tally}/patterns/{number}/value-pairs', { params: { path: { tally: props.tally, number: props.pattern ?? 0 } }, signal })),
  enabled: () => isOpen.value && props.pattern !== null,
})
const nameable = computed(() => (pairs.data.value?.isAll === true ? pairs.data.value.items : []))
const wanted = computed(() => (chosen.value === null ? 'decision' : missing(chosen.value, entered.value)))
const isUsable = computed(() => wanted.value === null && isSaidAgain.value && (future.value !== 'up-to' || /^[1-9]\d{0,11}$/.test(upTo.value)))
function rule(): void {
  const holds: Holds =
    future.value === 'up-to'
      ? { holdsUpTo: Number(upTo.value) }
      : future.value === 'pairs'
        ? { holdsFor: nameable.value.map(({ source, target }) => ({ source, target })) }
        : {}
  if (chosen.value !== null && isUsable.value) emit('rule', chosen.value, { ...entered.value, reason: entered.value.reason.trim() }, holds)
}
</script>

<template>
  <el-dialog v-model="isOpen" :title="`Rule on all ${words}`" width="500">
    <form class="form" @submit.prevent="rule">
      <fieldset>
        <legend>What they are</legend>
        <label v-for="one in decisions" :key="one"><input v-model="chosen" type="radio" name="decision" :value="one" /> {{ decisionName(one) }}</label>
      </fieldset>
      <label for="all-reason">Why</label>
      <el-input id="all-reason" v-model="entered.reason" type="textarea" :rows="2" maxlength="2000" />
      <div class="two">
        <el-input v-model="entered.ticket" placeholder="Ticket" aria-label="Ticket" maxlength="100" />
        <el-select v-model="entered.askedId" clearable placeholder="Who to ask" aria-label="Who to ask">
          <el-option v-for="person in people" :key="person.id" :value="person.id" :label="`${person.name}, ${person.role}`" />
        </el-select>
      </div>
      <fieldset v-if="pattern !== null" class="future">
        <legend>In tallies to come</legend>
        <label><input v-model="future" type="radio" name="future" value="no" /> where the values stay the same</label>
        <label
          ><input v-model="future" type="radio" name="future" value="up-to" /> all of this pattern, while it has no more than
          <el-input v-model="upTo" class="figure" size="small" inputmode="numeric" aria-label="Highest number of cells" @focus="future = 'up-to'" /> cells;
          beyond that it opens again</label
        >
        <label v-if="nameable.length > 0"
          ><input v-model="future" type="radio" name="future" value="pairs" /> cells with
          {{ nameable.length === 1 ? 'its one value pair' : `one of its ${count(nameable.length)} value pairs` }}, however many</label
        >
      </fieldset>
      <label v-if="findings > ASK_ABOVE" class="again"
        >These are {{ words }}. Say the number again: <el-input v-model="again" class="figure" size="small" inputmode="numeric" aria-label="The number again"
      /></label>
      <p class="quiet">Earlier rulings on single findings among them no longer stand. You can undo this.</p>
      <p v-if="wanted !== null || !isSaidAgain" role="status">
        {{
          wanted === null
            ? 'Say the number again.'
            : wanted === 'decision'
              ? 'Choose what they are.'
              : wanted === 'reason'
                ? 'Say why.'
                : 'Choose who is asked.'
        }}
      </p>
      <el-button type="primary" native-type="submit" :disabled="!isUsable"
        >Rule {{ chosen === null ? '' : decisionName(chosen).toLowerCase() }} on {{ words }}</el-button
      >
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
.two {
  display: grid;
  grid-template-columns: 2fr 3fr;
  gap: 8px;
  inline-size: 100%;
}
.future {
  display: grid;
  gap: 4px;
}
.figure {
  inline-size: 90px;
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
