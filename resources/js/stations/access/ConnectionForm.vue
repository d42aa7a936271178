<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import ErrorNote from '@/parts/ErrorNote.vue'
import { feedOf } from '@/stations/access/feed'
import FeedFields from '@/stations/access/FeedFields.vue'

/** Where a database stands and how it is entered: tried before it is kept. */
const props = defineProps<{
  migration: number
  kept: Schemas['Connection'] | null
  kinds: Schemas['Connections']['kinds']
  files: string
}>()
const emit = defineEmits<{ kept: [] }>()
const settings = props.kept?.settings ?? {}
const entered = reactive({
  label: props.kept?.label ?? '',
  kind: props.kept?.kind ?? ('postgresql' as Schemas['SourceKind']),
  host: settings.host ?? '',
  port: settings.port ?? null,
  database: settings.database ?? '',
  user: settings.user ?? '',
  password: '',
  file: settings.file ?? '',
  encryption: settings.encryption ?? ('preferred' as const),
  authority: settings.authority ?? '',
  seconds: settings.seconds ?? null,
  rows: settings.rows ?? null,
  folder: settings.folder ?? '',
  marker: settings.marker ?? '',
  rest: settings.rest ?? 10,
})
const feed = ref(feedOf(settings))
const kind = computed(() => props.kinds.find((one) => one.kind === entered.kind))
const isFile = computed(() => entered.kind === 'sqlite')
const isFolder = computed(() => entered.kind === 'folder')
const isFeed = computed(() => entered.kind === 'feed')
const ENCRYPTIONS = {
  preferred: 'where the database offers it',
  required: 'always',
  verified: 'always, and its certificate is checked',
} as const
const body = computed<Schemas['ConnectionAsked']>(() => ({
  ...entered,
  ...feed.value,
  label: entered.label.trim(),
  port: entered.port ?? null,
  authority: entered.encryption === 'verified' ? entered.authority : null,
}))
const path = { migration: props.migration }
const {
  data: greeted,
  isPending: isTrying,
  error: tryError,
  mutate: tryIt,
} = useMutation({ mutationFn: () => answer(api.POST('/migrations/{migration}/connection-trials', { params: { path }, body: body.value })) })
const {
  isPending: isKeeping,
  error: keepError,
  mutate: keepIt,
} = useMutation({
  mutationFn: () =>
    props.kept === null
      ? answer(api.POST('/migrations/{migration}/connections', { params: { path }, body: body.value }))
      : answer(api.PUT('/migrations/{migration}/connections/{connection}', { params: { path: { ...path, connection: props.kept.id } }, body: body.value })),
  onSuccess: () => emit('kept'),
})
const canTry = computed(
  () =>
    entered.label.trim() !== '' &&
    (isFolder.value || isFeed.value ? isFolder.value || feed.value.url.trim() !== '' : isFile.value ? entered.file.trim() !== '' : entered.host.trim() !== ''),
)
/** A password that is kept is not told, so only a new one can be tried by itself; keeping tries it in any case. */
const isTried = computed(() => props.kept === null || entered.password !== '' || isFile.value || isFolder.value)
</script>

<template>
  <form class="form" @submit.prevent="keepIt()">
    <label>Name, by which it is known <el-input v-model="entered.label" aria-label="Name of the connection" maxlength="100" autocomplete="off" /></label>
    <label
      >Kind
      <el-select v-model="entered.kind" aria-label="Kind of source">
        <el-option v-for="one in kinds" :key="one.kind" :value="one.kind" :label="one.label" :disabled="!one.isThere"
          >{{ one.label }} <span v-if="!one.isThere" class="quiet">this machine lacks PHP's driver</span></el-option
        >
      </el-select>
    </label>
    <label v-if="isFile" class="wide"
      >File, below {{ files }} <el-input v-model="entered.file" aria-label="File of the database" class="cell" autocomplete="off"
    /></label>
    <template v-else-if="isFolder">
      <label class="wide"
        >Folder, below {{ files }} <el-input v-model="entered.folder" aria-label="Folder" class="cell" placeholder="itself" autocomplete="off"
      /></label>
      <label>Marker behind the name of a whole file <el-input v-model="entered.marker" aria-label="Marker" placeholder="none" autocomplete="off" /></label>
      <label v-if="entered.marker === ''"
        >Seconds that a file has to rest <el-input-number v-model="entered.rest" :min="0" :controls="false" aria-label="Seconds that a file has to rest"
      /></label>
    </template>
    <template v-else-if="isFeed">
      <FeedFields v-model="feed" />
      <label
        >Token
        <el-input
          v-model="entered.password"
          type="password"
          aria-label="Token"
          autocomplete="new-password"
          :placeholder="kept?.hasPassword ? 'the one that is kept' : 'none'"
      /></label>
    </template>
    <template v-else>
      <label>Computer <el-input v-model="entered.host" aria-label="Computer" placeholder="db.example.org" autocomplete="off" /></label>
      <label
        >Port <el-input-number v-model="entered.port" :min="1" :max="65535" :controls="false" :placeholder="String(kind?.port ?? '')" aria-label="Port"
      /></label>
      <label>Database <el-input v-model="entered.database" aria-label="Database" autocomplete="off" /></label>
      <label>User <el-input v-model="entered.user" aria-label="User" autocomplete="off" /></label>
      <label
        >Password
        <el-input
          v-model="entered.password"
          type="password"
          aria-label="Password of the user"
          autocomplete="new-password"
          :placeholder="kept?.hasPassword ? 'the one that is kept' : ''"
      /></label>
      <label
        >Encrypted
        <el-select v-model="entered.encryption" aria-label="Encrypted">
          <el-option v-for="(name, mode) in ENCRYPTIONS" :key="mode" :value="mode" :label="name" />
        </el-select>
      </label>
      <label v-if="entered.encryption === 'verified'" class="wide"
        >Certificate of the authority (PEM)
        <textarea
          v-model="entered.authority"
          rows="3"
          class="cell"
          aria-label="Certificate of the authority"
          placeholder="-----BEGIN CERTIFICATE-----"
        ></textarea>
      </label>
    </template>
    <label v-if="!isFolder"
      >Seconds that it may take
      <el-input-number v-model="entered.seconds" :min="1" :controls="false" placeholder="1800" aria-label="Seconds that a query may take" />
    </label>
    <label v-if="!isFeed && !isFolder"
      >Rows that it may give
      <el-input-number v-model="entered.rows" :min="1" :controls="false" placeholder="any number" aria-label="Rows that a query may give" />
    </label>
    <ErrorNote class="wide" :error="keepError ?? tryError" />
    <p v-if="greeted && !isTrying" class="wide" role="status">It can be entered: {{ greeted.greeting }}.</p>
    <span class="wide buttons">
      <el-button v-if="isTried" :disabled="!canTry" :loading="isTrying" @click="tryIt()">Try it</el-button>
      <el-button type="primary" native-type="submit" :disabled="!canTry" :loading="isKeeping">Try and keep it</el-button>
    </span>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 10px 16px;
}
label {
  display: grid;
  font-size: 12.5px;
  color: var(--ink-2);
  align-content: end;
}
.wide {
  grid-column: 1 / -1;
}
p {
  margin: 0;
  background: var(--mark);
  padding: 6px 10px;
}
textarea {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 6px;
  background: var(--sheet);
  color: inherit;
  resize: vertical;
}
.buttons {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
label :deep(.el-input-number) {
  inline-size: 100%;
}
</style>
