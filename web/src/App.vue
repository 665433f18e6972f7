<script setup lang="ts">
import { usePaper } from './look/usePaper'
import AskPart from './parts/AskPart.vue'

usePaper()
</script>

<template>
  <v-app>
    <router-view />
    <AskPart />
  </v-app>
</template>
