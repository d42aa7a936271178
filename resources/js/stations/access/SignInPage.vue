<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import ErrorNote from '@/parts/ErrorNote.vue'
import AccessFrame from '@/stations/access/AccessFrame.vue'
import { useSignIn } from '@/stations/access/useSignIn'

const queries = useQueryClient()
const { entered, asksForCode, isIncomplete, mutate, isPending, refusal } = useSignIn({ then: () => queries.invalidateQueries({ queryKey: ['session'] }) })
</script>

<template>
  <AccessFrame heading="Sign in" note="Nine Tally shows what arrived, what did not, and why.">
    <el-form label-position="top" @submit.prevent="mutate()">
      <el-form-item label="E-mail address"><el-input id="email" v-model="entered.email" name="email" autocomplete="username" autofocus /></el-form-item>
      <el-form-item label="Password"
        ><el-input id="password" v-model="entered.password" name="password" type="password" autocomplete="current-password"
      /></el-form-item>
      <el-form-item v-if="asksForCode" label="Code of your authenticator, or a recovery code"
        ><el-input id="code" v-model="entered.code" name="code" autocomplete="one-time-code" autofocus
      /></el-form-item>
      <el-button type="primary" native-type="submit" :loading="isPending" :disabled="entered.email === '' || isIncomplete">Sign in</el-button>
    </el-form>
    <ErrorNote :error="refusal" />
  </AccessFrame>
</template>
