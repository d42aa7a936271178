<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import { figure, figures, joined, type Said } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import OverlapBar from '@/parts/OverlapBar.vue'
import SaidText from '@/parts/SaidText.vue'
import RulingsLeftBehind from '@/stations/tally/RulingsLeftBehind.vue'
import TallyComparison from '@/stations/tally/TallyComparison.vue'
import TallyNameForm from '@/stations/tally/TallyNameForm.vue'
import TallyCurve from '@/stations/tally/TallyCurve.vue'

const props = defineProps<{ tallies: readonly Schemas['Tally'][]; course: Schemas['Course'] }>()
/** Two tallies are chosen one after the other; the earlier is held against the later. */
const chosen = ref<number[]>([])
const isComparing = ref(false)
function choose(id: number): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((one) => one !== id) : [...chosen.value, id].slice(-2)
}
const both = computed(() => {
  const found = props.tallies.filter(({ id }) => chosen.value.includes(id)).sort((a, b) => a.number - b.number)
  return found.length === 2 && found[0] !== undefined && found[1] !== undefined ? { earlier: found[0], later: found[1] } : null
})
type CarryOver = NonNullable<Schemas['Tally']['carryOver']>
function carriedSaid(carryOver: CarryOver): Said {
  const of = (name: 'carried' | 'changed' | 'beyond' | 'takenOn', words: string): Said[] =>
    carryOver[name] > 0 || name === 'carried' ? [[figure(`tally/carryOver/${name}`, carryOver[name]), ` ${words}`]] : []
  return joined([
    ['of ', ...figures('tally/carryOver/ruled', carryOver.ruled, 'finding'), ` ruled on in tally ${carryOver.from}`],
    ...of('carried', 'stand here'),
    ...of('changed', 'changed since and opened again'),
    ...of('beyond', 'opened again, for their pattern has more cells than the ruling was meant for'),
    ...of('takenOn', 'more are covered by a ruling for tallies to come'),
  ])
}
const settledBy = { data: 'settled by the data', plan: 'absorbed by plan', either: 'settled by the data or by plan' } as const
const behindSaid = ({ gone, settledBy: by, hasOtherKey }: CarryOver, plan: number): Said => [
  figure('tally/carryOver/gone', gone),
  hasOtherKey ? ' settled, or not to be placed under the new key' : ` ${settledBy[by]}${by === 'data' ? '' : ` ${plan}`}`,
]
/** Beside deliveries and plan: what else must be the same for the same tally. */
const withSaid = ({ parameters, references, matched }: Schemas['Tally']): string =>
  [
    ...matched.map(({ name, tally }) => `as ${name} matched in tally ${tally}`),
    ...references.map(({ name, delivery }) => `${name} delivery ${delivery}`),
    ...parameters.map(({ name, value }) => `${name} = ${value}`),
  ].join(', ')
const naming = ref<Schemas['Tally'] | null>(null)
const listed = ref<Schemas['Tally'] | null>(null)
const open = (tally: Schemas['Tally']): Said => (tally.openGroups === 0 ? ['none'] : figures('tally/openGroups', tally.openGroups, 'pattern'))
</script>

<template>
  <section class="history" aria-label="History">
    <h2>How the two sides came closer</h2>
    <p v-if="tallies.length === 0" class="quiet">Each run that ends well stands here, numbered, with its figures. None of them ever changes.</p>
    <TallyCurve v-if="tallies.length > 1" :tallies="tallies" />
    <p v-if="tallies.length > 1" class="compare">
      <el-button size="small" :disabled="both === null" @click="isComparing = true">{{
        both === null ? 'Choose two tallies to compare' : `Compare tally ${both.earlier.number} with tally ${both.later.number}`
      }}</el-button>
    </p>
    <div v-if="tallies.length > 0" class="scroll">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="unseen">compare</span></th>
            <th scope="col">tally</th>
            <th scope="col">when</th>
            <th scope="col">{{ course.migration.sourceLabel.toLowerCase() }} over {{ course.migration.targetLabel.toLowerCase() }}</th>
            <th scope="col" class="number" title="Values right, of all values on either side">agreement</th>
            <th scope="col" class="number">rows arrived</th>
            <th scope="col">open</th>
            <th scope="col">from</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="tally in tallies" :key="tally.id" :data-tally="tally.id">
            <td>
              <input type="checkbox" :checked="chosen.includes(tally.id)" :aria-label="`Compare tally ${tally.number}`" @change="choose(tally.id)" />
            </td>
            <th scope="row" data-ordinal>
              <RouterLink :to="{ path: `/datasets/${course.id}/review`, query: { tally: tally.id } }" :aria-label="`Review tally ${tally.number}`">{{
                tally.number
              }}</RouterLink>
            </th>
            <td>
              <b v-if="tally.name" data-ordinal>{{ tally.name }}<br /></b>{{ moment(tally.finishedAt) }}
              <button v-if="course.mayWork" type="button" class="plain as-link" :aria-label="`Name tally ${tally.number}`" @click="naming = tally">
                {{ tally.name || tally.remark ? 'rename' : 'name' }}
              </button>
              <span v-if="tally.remark" class="quiet remark" data-ordinal>{{ tally.remark }}</span>
            </td>
            <td><OverlapBar :rows="tally.rows" :width="300" :height="18" captioned /></td>
            <td class="number strong"><FigureValue name="values/agreement" :of="tally.figures.agreement" /></td>
            <td class="number strong"><FigureValue name="rows_arrived" :of="tally.figures.rowsArrived" /></td>
            <td><SaidText :said="open(tally)" /></td>
            <td class="quiet">
              deliveries {{ tally.sourceDelivery }} and {{ tally.targetDelivery }}, plan {{ tally.planVersion
              }}<template v-if="withSaid(tally)"
                >, <span class="with">{{ withSaid(tally) }}</span></template
              >{{ ' '
              }}<a
                v-if="course.seesDelivered"
                :href="`/api/v1/tallies/${tally.id}/folder`"
                download
                title="Both deliveries, the references and the plan in one zip file, with the command that makes this tally again"
                :aria-label="`Download all that tally ${tally.number} was made of`"
                >download</a
              ><br />
              {{ tally.startedBy
              }}<template v-if="tally.carryOver"
                ><br /><SaidText :said="carriedSaid(tally.carryOver)" /><template v-if="tally.carryOver.gone > 0"
                  >, <SaidText :said="behindSaid(tally.carryOver, tally.planVersion)" />
                  <button
                    type="button"
                    class="plain as-link"
                    :aria-label="`List the rulings that do not stand in tally ${tally.number}`"
                    @click="listed = tally"
                  >
                    list
                  </button></template
                ></template
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <TallyComparison v-if="isComparing && both" :earlier="both.earlier" :later="both.later" @close="isComparing = false" />
    <TallyNameForm v-if="naming" :tally="naming" @close="naming = null" />
    <RulingsLeftBehind v-if="listed" :tally="listed" @close="listed = null" />
    <ul v-if="(tallies[0]?.warnings.length ?? 0) > 0" class="warnings" aria-label="Warnings of the latest tally">
      <li v-for="warning in tallies[0]?.warnings" :key="warning" data-sentence="warnings">{{ warning }}</li>
    </ul>
  </section>
</template>

<style scoped>
.history {
  padding: 14px 24px;
}
.scroll {
  overflow-x: auto;
  position: relative;
}
table {
  border-collapse: collapse;
  inline-size: 100%;
  margin-block-start: 8px;
}
thead th {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-3);
}
th,
td {
  text-align: start;
  padding: 7px 12px 7px 0;
  border-block-end: 1px solid var(--line-2);
  font-size: 13px;
}
.number {
  text-align: end;
}
.strong {
  font-weight: 600;
}
.remark {
  display: block;
  max-inline-size: 28ch;
  overflow-wrap: anywhere;
}
.warnings {
  margin: 14px 0 0;
  padding: 8px 12px 8px 28px;
  background: var(--warn);
  font-size: 13px;
  max-inline-size: 96ch;
}
</style>
