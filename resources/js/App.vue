<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/composables/useSession'
import LoadState from '@/parts/LoadState.vue'
import WorkbookTray from '@/parts/WorkbookTray.vue'
import FirstPersonPage from '@/stations/access/FirstPersonPage.vue'
import SignInPage from '@/stations/access/SignInPage.vue'

const { data: session, error, isPending, refetch } = useSession()
const isSignedIn = computed(() => session.value?.person != null)
</script>

<template>
  <LoadState :is-loading="isPending" :error="error" what="Nine Tally" @retry="refetch()">
    <template v-if="isSignedIn"><RouterView /><WorkbookTray /></template>
    <FirstPersonPage v-else-if="session?.needsFirstPerson" />
    <SignInPage v-else />
  </LoadState>
</template>
