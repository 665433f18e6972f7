<script setup lang="ts">
import { usePaper } from './look/usePaper'

usePaper()
</script>

<template>
  <v-app>
    <router-view />
  </v-app>
</template>
