<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { usePeople } from '@/composables/usePeople'
import { moment } from '@/format/moments'
import FigureValue from '@/parts/FigureValue.vue'

/** What somebody says of the row, what others said of it, and what the sample shows so far. */
const props = defineProps<{
  check: Schemas['EyeCheck']
  row: Schemas['EyeCheckRows']['rows'][number] | undefined
  place: string
  notDrawn: number
  course: Schemas['Course']
  isBusy: boolean
}>()
const emit = defineEmits<{ say: [verdict: Schemas['EyeVerdictName'], remark: string]; give: [person: number] }>()

type Verdict = Schemas['EyeVerdictName']
const WORDS: Record<Verdict, string> = { right: 'Right', wrong: 'Wrong', unclear: 'Unclear' }
const remark = ref(props.row?.mine?.remark ?? '')
const lacksRemark = ref(false)
const field = ref<{ focus: () => void } | null>(null)
function decide(verdict: Verdict): void {
  if (!props.course.mayRule || props.row === undefined || props.isBusy) return
  lacksRemark.value = verdict === 'wrong' && remark.value.trim() === ''
  if (lacksRemark.value) field.value?.focus()
  else emit('say', verdict, remark.value)
}
defineExpose({ decide })
const people = usePeople(() => props.course.migration.id)
const others = computed(() => people.value.filter(({ id, mayRule }) => mayRule && !props.check.people.some((person) => person.id === id)))
const given = ref<number | ''>('')
function give(): void {
  if (given.value !== '') emit('give', given.value)
  given.value = ''
}
const strata = [
  { name: 'identical', words: 'Identical rows' },
  { name: 'byRule', words: 'Rows that agree only for a rule' },
] as const
</script>

<template>
  <section v-if="row" aria-label="Verdict">
    <h2>
      Row <span data-ordinal>{{ place }}</span>
    </h2>
    <div v-if="course.mayRule" class="verdicts" role="group" aria-label="What is the row?">
      <el-button
        v-for="(words, verdict) in WORDS"
        :key="verdict"
        :type="row.mine?.verdict === verdict ? 'primary' : 'default'"
        :aria-pressed="row.mine?.verdict === verdict"
        :loading="isBusy"
        @click="decide(verdict)"
        >{{ words }} <kbd>{{ verdict[0] }}</kbd></el-button
      >
    </div>
    <el-input v-if="course.mayRule" ref="field" v-model="remark" type="textarea" :rows="2" placeholder="Remark" aria-label="Remark" maxlength="2000" />
    <p v-if="lacksRemark" role="alert">Say what is wrong with the row, then press Wrong again.</p>
    <p v-for="said in [...(row.mine ? [row.mine] : []), ...row.others]" :key="said.by" class="said">
      <b>{{ said.verdict }}</b>, {{ said.by }}, {{ moment(said.at) }}<template v-if="said.remark">: {{ said.remark }}</template>
    </p>
  </section>
  <section aria-label="What the sample shows">
    <h2>What it shows</h2>
    <template v-for="stratum in strata" :key="stratum.name">
      <template v-if="check.strata[stratum.name].rows > 0">
        <h3>{{ stratum.words }}</h3>
        <p>
          <FigureValue :name="`eye-check/check/strata/${stratum.name}`" :of="check.strata[stratum.name].words" />
        </p>
      </template>
    </template>
    <p v-if="notDrawn > 0" class="quiet">
      Not said of <FigureValue name="eye-checks/notDrawn" :of="notDrawn" /> rows that agree under a key that stands more than once, or by a bridge: they are
      never drawn.
    </p>
  </section>
  <section aria-label="Who looks">
    <h2>Who looks</h2>
    <p v-for="person in check.people" :key="person.id">{{ person.name }}: <FigureValue name="eye-check/check/people" :of="person.said" /> said</p>
    <form v-if="course.mayRule && others.length > 0" @submit.prevent="give">
      <select v-model="given" aria-label="Give the same sample to">
        <option value="" disabled>the same rows for …</option>
        <option v-for="person in others" :key="person.id" :value="person.id">{{ person.name }}</option>
      </select>
      <el-button size="small" native-type="submit" :disabled="given === ''" :loading="isBusy">Give</el-button>
    </form>
    <p class="quiet">
      Drawn by {{ check.by }}, {{ moment(check.at) }}, under the seed <span class="cell seed">{{ check.seed }}</span>.
    </p>
  </section>
</template>

<style scoped>
section {
  margin-block-end: 18px;
}
h2 {
  font-size: 14px;
  margin: 0 0 8px;
}
h3 {
  font-size: 12.5px;
  margin: 8px 0 2px;
}
p {
  margin: 4px 0;
}
.verdicts {
  display: flex;
  gap: 6px;
  margin-block-end: 8px;
}
.verdicts kbd {
  margin-inline-start: 5px;
}
.verdicts .el-button {
  flex: 1;
  padding-inline: 6px;
  margin: 0;
}
.said {
  overflow-wrap: anywhere;
}
form {
  display: flex;
  gap: 6px;
}
select {
  flex: 1;
  min-inline-size: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 8px;
  background: var(--sheet);
}
.seed {
  overflow-wrap: anywhere;
  font-size: 12px;
}
</style>
