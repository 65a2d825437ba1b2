<script setup lang="ts">
import { ElButton } from 'element-plus'

import { account } from '@/composables/useAccount'
import { useSignOut } from '@/composables/useSignOut'
import { ACCOUNT_SCREEN as say } from '@/words/texts/account'

import DeviceList from './DeviceList.vue'
import EraseAccount from './EraseAccount.vue'
import OwnSquads from './OwnSquads.vue'
import PasswordForm from './PasswordForm.vue'
import SecondFactor from './SecondFactor.vue'
import UnitsForm from './UnitsForm.vue'

const leave = useSignOut()
</script>

<template>
  <main id="main">
    <header>
      <h1>{{ say.yourAccount }}</h1>
      <span class="said">{{ account?.name }}</span>
      <span class="grow"></span>
      <ElButton @click="leave">{{ say.signOut }}</ElButton>
      <RouterLink to="/privacy">{{ say.whatIsKeptAboutYou }}</RouterLink>
    </header>
    <div class="page">
      <div class="column">
        <OwnSquads />
        <DeviceList />
      </div>
      <div class="column">
        <UnitsForm />
        <PasswordForm />
        <SecondFactor />
        <EraseAccount />
      </div>
    </div>
  </main>
</template>

<style scoped src="@/styles/bar.css"></style>
<style scoped src="@/styles/paper.css"></style>
