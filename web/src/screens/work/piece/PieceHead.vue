<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { ordinal } from '../../../foundation/words'
import { joined } from '../../../parts/asks'
import WhyLink from '../../../parts/why/WhyLink.vue'

/** Whose piece it is, of what, and when it came; what can be done with it follows in the same line. */
defineProps<{ edition: number; section: Schemas['WorkSection']; piece: Schemas['WorkPiece'] }>()
const levels = useLevels()
</script>

<template>
  <div>
    <h2>
      <router-link
        :to="{
          name: 'one-student',
          params: { edition, student: piece.student },
          query: { section: section.section },
        }"
        >{{ piece.name }}</router-link
      >
    </h2>
    <p class="second">
      {{ piece.code }} {{ piece.title }} · {{ section.name }} ·
      <template v-if="piece.work === null"
        >came {{ piece.handedInAt.words }}, after the {{ levels.item.one }} had closed</template
      >
      <template v-else>handed in {{ piece.handedInAt.words }}</template>
      <template v-if="piece.others.length"> together with {{ joined(piece.others) }}</template>
      <template v-if="piece.n > 1">{{ ` for the ${ordinal(piece.n)} time` }}</template>
      <template v-if="piece.late">, {{ piece.late }}</template>
      <template v-if="piece.pressedAt"> (pressed {{ piece.pressedAt.words }})</template>
      <slot />{{ ' ' }}
      <WhyLink :edition="edition" :student="piece.student" :item="piece.item" :name="`${piece.name}, ${piece.title}`" />
    </p>
  </div>
</template>

<style scoped>
div {
  display: grid;
  gap: var(--space-5);
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
</style>
