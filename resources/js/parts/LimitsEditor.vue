<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Schemas } from '@/api/client'

/** The limits of a dataset or a migration: each with its worst value, those that are inherited with what is said instead of them. */
const props = defineProps<{
  limits: readonly Schemas['Limit'][]
  inherited: readonly Schemas['Limit'][]
  choices: readonly Schemas['LimitChoice'][]
  mayChange: boolean
  isSaving: boolean
}>()
const emit = defineEmits<{ update: [limits: readonly Schemas['Limit'][]] }>()
type Limit = Schemas['Limit']
const UNITS: Record<Schemas['LimitChoice']['unit'], string> = { percent: '%', count: '', amount: '', hours: 'hours' }
const DECIMAL = /^\d{1,60}(\.\d{1,30})?$/

const idOf = ({ figure, of }: Limit): string => (of === undefined ? figure : `${figure} ${of}`)
const choiceOf = ({ figure }: Limit): Schemas['LimitChoice'] | undefined => props.choices.find((one) => one.figure === figure)
const words = (limit: Limit): string => {
  const choice = choiceOf(limit)
  const scope = limit.of === undefined ? '' : ` (${choice?.of.find(({ of }) => of === limit.of)?.words ?? limit.of})`
  const unit = choice === undefined ? '' : UNITS[choice.unit]
  return limit.worst === null
    ? `${choice?.words ?? limit.figure}${scope}: no limit here`
    : `${choice?.words ?? limit.figure}${scope}: at ${choice?.isAtLeast === true ? 'least' : 'most'} ${limit.worst}${unit === '' ? '' : ` ${unit}`}`
}
const own = computed(() => new Map(props.limits.map((limit) => [idOf(limit), limit])))
const lifted = (limit: Limit): Limit | undefined => own.value.get(idOf(limit))
const without = (limit: Limit): Limit[] => props.limits.filter((one) => idOf(one) !== idOf(limit))

const entered = reactive({ figure: '', of: '', worst: '' })
const choice = computed(() => props.choices.find(({ figure }) => figure === entered.figure))
const isDecimal = computed(() => DECIMAL.test(entered.worst.trim()))
const isReady = computed(() => choice.value !== undefined && isDecimal.value && (!choice.value.needsScope || entered.of !== ''))
function add(): void {
  const limit: Limit = { figure: entered.figure, ...(entered.of === '' ? {} : { of: entered.of }), worst: entered.worst.trim() }
  emit('update', [...without(limit), limit])
  Object.assign(entered, { figure: '', of: '', worst: '' })
}
</script>

<template>
  <ul v-if="limits.length > 0" class="entries" aria-label="Limits">
    <li v-for="limit in limits" :key="idOf(limit)">
      <span data-figure="limits/limits">{{ words(limit) }}</span>
      <el-button v-if="mayChange" size="small" :loading="isSaving" :aria-label="`Take away: ${words(limit)}`" @click="emit('update', without(limit))"
        >Take away</el-button
      >
    </li>
  </ul>
  <p v-else class="quiet">{{ inherited.length > 0 ? 'None but those of the migration.' : 'None yet: nobody has said what is good enough.' }}</p>
  <template v-if="inherited.length > 0">
    <h3>Of the migration</h3>
    <ul class="entries" aria-label="Limits of the migration">
      <li v-for="limit in inherited" :key="idOf(limit)">
        <span data-figure="limits/inherited"
          ><s v-if="lifted(limit)">{{ words(limit) }}</s
          ><template v-else>{{ words(limit) }}</template></span
        >
        <span v-if="lifted(limit)" class="quiet">said otherwise here</span>
        <el-button
          v-else-if="mayChange"
          size="small"
          :loading="isSaving"
          :aria-label="`No limit here: ${words(limit)}`"
          @click="emit('update', [...limits, { figure: limit.figure, worst: null }])"
          >No limit here</el-button
        >
      </li>
    </ul>
  </template>
  <template v-if="mayChange">
    <h3>Another one</h3>
    <form @submit.prevent="isReady && add()">
      <label for="limit-figure">On</label>
      <select id="limit-figure" v-model="entered.figure" @change="entered.of = ''">
        <option value="" disabled>choose a figure</option>
        <option v-for="one in choices" :key="one.figure" :value="one.figure" :disabled="one.needsScope && one.of.length === 0">{{ one.words }}</option>
      </select>
      <template v-if="choice && choice.of.length > 0">
        <label for="limit-of">of</label>
        <select id="limit-of" v-model="entered.of">
          <option v-if="!choice.needsScope" value="">all together</option>
          <option v-else value="" disabled>choose which</option>
          <option v-for="one in choice.of" :key="one.of" :value="one.of">{{ one.words }}</option>
        </select>
      </template>
      <label for="limit-worst">{{ choice?.isAtLeast ? 'at least' : 'at most' }}</label>
      <span class="line">
        <el-input id="limit-worst" v-model="entered.worst" inputmode="decimal" :placeholder="choice?.unit === 'percent' ? 'such as 99.5' : 'such as 0'" />
        <span v-if="choice">{{ UNITS[choice.unit] }}</span>
      </span>
      <p v-if="entered.worst !== '' && !isDecimal" role="alert">A number with a point before its decimals, such as 99.5.</p>
      <el-button type="primary" native-type="submit" :disabled="!isReady" :loading="isSaving">Set the limit</el-button>
    </form>
  </template>
  <p v-else class="quiet">A test manager sets limits.</p>
</template>

<style scoped>
h3 {
  font-size: 13px;
  margin: 14px 0 6px;
}
p {
  font-size: 13px;
  margin: 6px 0;
}
form {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 8px 14px;
  align-items: center;
}
form > p,
form > :last-child {
  grid-column: 1 / -1;
  justify-self: start;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  max-inline-size: 220px;
}
select {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 5px 8px;
  background: var(--sheet);
  min-inline-size: 0;
}
</style>
