<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { className } from '@/format/classes'
import { count, counted } from '@/format/counts'
import { figure, figures as figuresOf, joined, type Said } from '@/format/said'
import AgreementLine from '@/parts/AgreementLine.vue'
import CellValue from '@/parts/CellValue.vue'
import FigureValue from '@/parts/FigureValue.vue'
import OverlapBar from '@/parts/OverlapBar.vue'
import RepeatsLine from '@/parts/RepeatsLine.vue'
import RowMark from '@/parts/RowMark.vue'
import SaidText from '@/parts/SaidText.vue'

/** What the draft would find, on the rows of some keys: at once after each change. */
const props = defineProps<{ trial: Schemas['Trial']; isFetching: boolean }>()

const MOST = 6
const isOpen = ref(false)
const result = computed(() => props.trial.result)
const basis = computed<Said>(() => {
  const found = result.value
  if (found === null) return []
  const rows: Said = [
    figure('trial/result/sampleRows/source', found.sampleRows.source),
    ' delivered rows against ',
    figure('trial/result/sampleRows/target', found.sampleRows.target),
  ]
  if (found.isHead) return [...rows, ': the beginning of both sides, where other rows may stand. The rows of some keys are being drawn …']
  if (found.oneIn === 1) return [...rows, ': all of them.']
  return [...rows, ': one key in ', figure('trial/result/oneIn', found.oneIn ?? 1), ', the same on both sides.']
})
const classes = computed(() => {
  const rows = result.value?.rows
  if (rows === undefined) return []
  return [
    { rowClass: 'agreed' as const, name: 'trial/result/rows/source/agreed', rows: rows.source.agreed },
    { rowClass: 'changed' as const, name: 'trial/result/rows/source/changed', rows: rows.source.changed },
    { rowClass: 'missing' as const, name: 'trial/result/rows/source/missing', rows: rows.source.missing },
    { rowClass: 'extra' as const, name: 'trial/result/rows/target/extra', rows: rows.target.extra },
    {
      rowClass: 'repeated' as const,
      name: 'trial/result/rows/source/repeated + trial/result/rows/target/repeated',
      rows: rows.source.repeated + rows.target.repeated,
    },
  ].filter(({ rows: some }) => some > 0)
})
const patterns = computed(() => [...(result.value?.patterns ?? [])].sort((a, b) => b.cells - a.cells))
const notCompared = computed<Said>(() => {
  const { source = 0, target = 0 } = result.value?.notCompared ?? {}
  const said: Said[] = []
  if (source > 0) said.push([...figuresOf('trial/result/notCompared/source', source, 'column'), ' of the source'])
  if (target > 0) said.push([...figuresOf('trial/result/notCompared/target', target, 'column'), ' of the target'])
  return said.length === 0 ? [] : ['Not compared: ', ...joined(said), '.']
})
const whole = (text: string) => [{ text, differs: false }]
const line = (of: number | null): string => (of === null ? '' : count(of))
</script>

<template>
  <section class="trial" aria-label="Preview of the result" :aria-busy="isFetching">
    <h2>Preview of the result</h2>
    <p v-if="trial.problem" class="warn" role="alert">{{ trial.problem }}</p>
    <template v-if="result">
      <OverlapBar :rows="result.rows" :width="286" :height="20" />
      <p class="classes" role="status">
        <span v-for="one in classes" :key="one.rowClass"
          ><RowMark :row-class="one.rowClass" silent /> <FigureValue :name="one.name" :of="one.rows" /> {{ className(one.rowClass).toLowerCase() }}</span
        >
      </p>
      <p>
        <FigureValue name="trial/result/rows/source/agreed + trial/result/rows/source/changed" :of="result.rows.source.agreed + result.rows.source.changed" />
        of <FigureValue name="trial/result/rows/source/prepared" :of="result.rows.source.prepared" /> source rows meet one (<FigureValue
          name="trial/result/rowsArrived"
          :of="result.rowsArrived"
        />).
      </p>
      <RepeatsLine :repeats="result.repeats" within="trial/result/repeats" />
      <AgreementLine :values="result.values" :of-arrived="result.ofArrived" within="trial/result/values" arrived="trial/result/ofArrived" />
      <ul v-if="patterns.length > 0">
        <li v-for="pattern in patterns.slice(0, MOST)" :key="`${pattern.source} ${pattern.sentence}`">
          <b>{{ pattern.source }}</b> <span data-figure="trial/result/patterns">{{ pattern.sentence }}</span>
          <span class="quiet" data-figure="trial/result/patterns">{{ ' ' + counted(pattern.cells, 'cell') }}</span>
        </li>
        <li v-if="patterns.length > MOST" class="quiet">
          and {{ patterns.length - MOST === 1 ? 'one pattern' : 'others' }} more; patterns in all:
          <FigureValue name="trial/result/patterns/length" :of="patterns.length" />
        </li>
      </ul>
      <p v-for="pass in result.keyForgiven" :key="`${pass.source} ${pass.sentence}`">
        The key lets pass: <b>{{ pass.source }}</b> {{ pass.sentence }}
        <span class="quiet" data-figure="trial/result/keyForgiven">{{ counted(pass.cells, 'cell') }}</span>
      </p>
      <p v-if="notCompared.length > 0" class="quiet"><SaidText :said="notCompared" /></p>
      <p v-for="warning in result.warnings" :key="warning" class="warn" data-sentence="trial/result/warnings">{{ warning }}</p>
      <p class="quiet"><SaidText :said="basis" /></p>
      <el-button v-if="result.findings.length > 0" size="small" @click="isOpen = true">Open the rows that differ</el-button>
      <el-dialog v-model="isOpen" title="Rows of the trial that differ" width="min(1100px, 95vw)">
        <p class="quiet">{{ counted(result.findings.length, 'row') }}{{ result.findings.length === 200 ? ', the first' : '' }}; a trial enters nothing.</p>
        <table class="figures">
          <thead>
            <tr>
              <th scope="col">row</th>
              <th scope="col">key</th>
              <th scope="col" class="number">source line</th>
              <th scope="col" class="number">target line</th>
              <th scope="col">what differs</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(finding, nth) in result.findings" :key="nth">
              <td><RowMark :row-class="finding.class" :side="finding.side" silent /> {{ className(finding.class) }}</td>
              <td><CellValue :stretches="whole(finding.key)" /></td>
              <td class="number">{{ line(finding.sourceLine) }}</td>
              <td class="number">{{ line(finding.targetLine) }}</td>
              <td>
                {{ finding.reason }}
                <div v-for="cell in finding.cells" :key="cell.column" class="differ">
                  <b>{{ cell.column }}</b> <CellValue :stretches="whole(cell.source)" side="source" />
                  <CellValue :stretches="whole(cell.target)" side="target" />
                  <span class="quiet">{{ cell.sentence }}</span>
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </el-dialog>
    </template>
  </section>
</template>

<style scoped>
.trial {
  font-size: 13px;
}
p {
  margin: 0 0 4px;
}
.classes {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
ul {
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
}
li {
  padding: 2px 0;
  overflow-wrap: anywhere;
}
.warn {
  background: var(--warn);
  padding: 3px 8px;
}
.classes > span {
  display: inline-flex;
  gap: 7px;
  align-items: center;
}
.differ {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
</style>
