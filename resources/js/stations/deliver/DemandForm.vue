<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { UNMET } from '@/format/demands'
import { count } from '@/format/counts'
import CommittedInput from '@/parts/CommittedInput.vue'

/** What the target demands of one column, and how many values of the source will not fit. */
const props = defineProps<{ column: string; demand: Schemas['Demand']; misfits: Schemas['Misfits'] | null; mayWork: boolean }>()
const emit = defineEmits<{ demand: [demand: Schemas['Demand']] }>()

type Whole = 'mostCharacters' | 'mostBytes' | 'digits' | 'decimals'
const wholes: readonly { part: Whole; label: string; least: number }[] = [
  { part: 'mostCharacters', label: 'at most characters', least: 1 },
  { part: 'mostBytes', label: 'at most bytes', least: 1 },
  { part: 'digits', label: 'digits of a number', least: 1 },
  { part: 'decimals', label: 'decimal places', least: 0 },
]
const found = computed(() => props.misfits?.counted?.columns.find(({ target }) => target === props.column) ?? null)

/** A part that says nothing is not there. */
function set(part: keyof Schemas['Demand'], value: Schemas['Demand'][keyof Schemas['Demand']] | undefined): void {
  const others = Object.fromEntries(Object.entries(props.demand).filter(([name]) => name !== part))
  emit('demand', value === undefined ? others : { ...others, [part]: value })
}
const setWhole = (part: Whole, text: string, least: number): void => set(part, /^\d+$/.test(text.trim()) && Number(text) >= least ? Number(text) : undefined)
const setAllowed = (text: string): void => {
  const values = text
    .split('\n')
    .map((value) => value.trim())
    .filter((value) => value !== '')
  set('allowed', values.length === 0 ? undefined : [...new Set(values)])
}
</script>

<template>
  <section class="demand" aria-label="What the target demands">
    <h4>requirements</h4>
    <fieldset :disabled="!mayWork">
      <el-checkbox :model-value="demand.required === true" @update:model-value="set('required', $event === true ? true : undefined)"
        >a value is required</el-checkbox
      >
      <label v-for="{ part, label, least } in wholes" :key="part">
        {{ label }}
        <CommittedInput
          :value="String(demand[part] ?? '')"
          size="small"
          class="few"
          inputmode="numeric"
          :aria-label="`${label} of ${column}`"
          @commit="setWhole(part, $event, least)"
        />
      </label>
      <label class="allowed">
        allowed values, one a line
        <textarea
          class="cell"
          rows="3"
          :value="demand.allowed?.join('\n') ?? ''"
          :aria-label="`Values allowed in ${column}`"
          @change="setAllowed(($event.target as HTMLTextAreaElement).value)"
        ></textarea>
      </label>
    </fieldset>
    <p v-if="misfits?.problem" class="warn" role="alert">{{ misfits.problem }}</p>
    <p v-else-if="misfits?.isWaiting" class="quiet" role="status">The source is being counted …</p>
    <template v-else-if="found">
      <p v-if="found.unmet.length === 0" role="status">Every value of {{ found.source }} fits.</p>
      <details v-for="{ part, count: times, examples } in found.unmet" :key="part">
        <summary>
          <b>{{ count(times) }} of {{ found.source }} will not fit</b>: {{ UNMET[part] }}
        </summary>
        <ul>
          <li v-for="(example, nth) in examples" :key="nth">
            <span class="quiet">line {{ count(example.line) }}</span> <span class="cell">{{ example.value }}</span>
          </li>
        </ul>
      </details>
    </template>
  </section>
</template>

<style scoped>
.demand {
  display: grid;
  gap: 6px;
  font-size: 13px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 4px;
}
label:not(.el-checkbox) {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}
.allowed {
  align-items: start;
}
textarea {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 2px 6px;
  background: var(--sheet);
  color: inherit;
  inline-size: 60%;
}
.few {
  inline-size: 70px;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
p,
ul {
  margin: 0;
}
ul {
  list-style: none;
  padding: 0;
  overflow-wrap: anywhere;
}
</style>
