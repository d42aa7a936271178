<script setup lang="ts">
import { formulaName } from '@/format/formulaName'
import { computed, ref, watch } from 'vue'

/** A formula as it is typed: names of columns and functions are completed; what is wrong with it is said above. */
const props = defineProps<{ formula: string; columns: readonly string[]; mayWork: boolean }>()
const emit = defineEmits<{ update: [formula: string] }>()

const PAUSE = 500
const SHOWN = 6
const functions = [
  'round',
  'absolute',
  'least',
  'greatest',
  'number',
  'length',
  'upper',
  'lower',
  'trimmed',
  'part',
  'left',
  'right',
  'replaced',
  'first',
  'blank',
  'year',
  'month',
  'day',
  'days',
  'later',
]
const written = ref(props.formula)
let timer: ReturnType<typeof setTimeout> | undefined

watch(
  () => props.formula,
  (formula) => {
    if (timer === undefined) written.value = formula
  },
)

const word = computed(() => /[\p{L}_][\p{L}\p{N}_]*$/u.exec(written.value)?.[0] ?? '')
const completions = computed(() => {
  const begun = word.value.toLowerCase()
  const names = props.columns
    .filter((name) => name.toLowerCase().startsWith(begun) && name !== word.value)
    .map((name) => ({ label: name, text: formulaName(name) }))
  const calls = begun === '' ? [] : functions.filter((name) => name.startsWith(begun)).map((name) => ({ label: `${name}()`, text: `${name}(` }))
  return [...names, ...calls].slice(0, SHOWN)
})

function type(text: string): void {
  written.value = text
  clearTimeout(timer)
  timer = setTimeout(() => {
    timer = undefined
    if (written.value.trim() !== '' && written.value !== props.formula) emit('update', written.value)
  }, PAUSE)
}
</script>

<template>
  <div class="field">
    <label for="formula">Is</label>
    <el-input id="formula" :model-value="written" type="textarea" :rows="3" :disabled="!mayWork" spellcheck="false" @update:model-value="type" />
    <div v-if="mayWork && completions.length > 0" class="completions" role="group" aria-label="Completions">
      <el-button
        v-for="completion in completions"
        :key="completion.label"
        size="small"
        @click="type(written.slice(0, written.length - word.length) + completion.text)"
        >{{ completion.label }}</el-button
      >
    </div>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
.field :deep(textarea) {
  font-family: var(--cell);
}
.completions {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
</style>
