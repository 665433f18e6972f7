<script setup lang="ts">
import { toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { joined } from '../../foundation/words'
import PutBack from './PutBack.vue'
import type { Card } from './useSections'

/** When a section meets, who teaches it, and all it does differently from the course. */
const props = defineProps<{ edition: number; card: Card; canChange: boolean }>()
const emit = defineEmits<{ timetable: []; stop: []; pretend: [] }>()
const removal = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/remove-pretend-section')
</script>

<template>
  <section tabindex="0" :aria-label="`${card.name}: timetable and differences`">
    <p class="ruled-head head">
      <span>Meets</span>
      <button v-if="canChange" type="button" class="word-button" @click="emit('timetable')">change</button>
    </p>
    <ul class="times">
      <li v-for="time in card.timetable" :key="time">{{ time }}</li>
      <li v-if="card.timetable.length === 0" class="second">at no time yet</li>
    </ul>
    <template v-if="card.pretend">
      <p class="small">
        This is a pretend section, for trying out the course. It has no real students, and nothing in it counts.
      </p>
      <p v-if="canChange" class="small stop">
        <button type="button" class="word-button" @click="removal.run({ section: card.id, version: card.version })">
          remove this pretend section
        </button>
      </p>
    </template>
    <p v-if="!card.pretend" class="small">
      <router-link
        :to="{ name: 'ready', params: { edition, section: card.id }, query: $route.query }"
        :aria-label="`Is it ready? ${card.name}`"
        >is it ready?</router-link
      >
      what is missing, for the next two weeks or the term
    </p>
    <p v-if="!card.pretend" class="small">Taught by {{ joined(card.teachers) || 'nobody yet' }}</p>
    <p v-if="canChange && !card.pretend" class="small stop">
      <button type="button" class="word-button" @click="emit('stop')">stop following the course</button>
    </p>
    <p v-if="canChange" class="small stop">
      <button type="button" class="word-button" @click="emit('pretend')">add a pretend section</button> to try the
      course with nobody in it
    </p>
    <p class="ruled-head differs">What differs from the course</p>
    <p v-if="card.differences.length === 0" class="second none">
      Nothing: it follows the course and meets as its timetable says. Anything changed for this section is listed here,
      and put back with one click.
    </p>
    <ul class="differences">
      <li v-for="difference in card.differences" :key="JSON.stringify(difference)">
        <PutBack :edition="edition" :section="card.id" :difference="difference" :can-change="canChange" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
}
.head .word-button {
  margin-left: auto;
}
.times {
  padding: var(--space-4) 0 var(--space-3);
}
.stop {
  padding-top: var(--space-2);
}
.differs {
  padding-top: var(--space-8);
}
.none {
  padding: var(--space-5) 0;
}
.differences li {
  padding: var(--space-4) 0;
}
.differences li + li {
  border-top: var(--stroke-hair) solid var(--faint-hair);
}
</style>
