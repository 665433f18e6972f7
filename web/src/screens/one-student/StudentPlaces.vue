<script setup lang="ts">
import { ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { spokenDate } from '../../foundation/dates/typedDate'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import DateField from '../../parts/fields/DateField.vue'

/** The sections a student is or was in, since when, and which of them decides. */
const props = defineProps<{ edition: number; one: Schemas['OneStudentAnswer'] }>()
const emit = defineEmits<{ move: [] }>()

type Place = Schemas['StudentPlace']
const edition = toRef(props, 'edition')
const setHome = useEditionCommand(edition, '/api/editions/{edition}/set-home')
const leave = useEditionCommand(edition, '/api/editions/{edition}/leave-section')
const leaving = ref<Place | null>(null)
const last = ref<string | null>(props.one.term.today)
const said = (date: string) => spokenDate(date, props.one.term)
const isOver = (place: Place) => place.to !== null && place.to < props.one.term.today
const from = (place: Place) =>
  place.from === null || place.from <= props.one.term.first ? '' : `since ${said(place.from)}`
const until = (place: Place) => (place.to === null || place.to >= props.one.term.last ? '' : `until ${said(place.to)}`)
const many = () => props.one.places.filter((place) => !isOver(place)).length > 1

const makeHome = (place: Place) =>
  setHome.run({ student: props.one.student, section: place.section }).catch(() => undefined)
const end = () =>
  leaving.value &&
  last.value &&
  leave.run({ section: leaving.value.section, students: [props.one.student], last: last.value }).then(
    () => (leaving.value = null),
    () => undefined,
  )
</script>

<template>
  <div>
    <p class="ruled-head">In</p>
    <ul class="ruled">
      <li v-for="place in one.places" :key="`${place.section} ${place.from}`">
        <p class="line">
          <SectionKey :letter="place.letter" :name="place.name" />
          <span class="small">{{ [from(place), until(place)].filter(Boolean).join(' ') || 'all term' }}</span>
          <span v-if="place.isHome" class="small">home section</span>
          <span v-else-if="place.isNow && many()" class="small">decides now</span>
        </p>
        <p v-if="one.canChange && !isOver(place)" class="line small">
          <button v-if="many() && !place.isHome" type="button" class="word-button" @click="makeHome(place)">
            make it the home section
          </button>
          <button type="button" class="word-button" @click="emit('move')">
            move to another section<span class="said-only"> from {{ place.name }}</span>
          </button>
          <button type="button" class="word-button" @click="leaving = place">
            leave<span class="said-only"> {{ place.name }}</span>
          </button>
        </p>
      </li>
    </ul>
    <p v-if="one.needsHome" class="accent said">
      They are in two sections at once. Say which one is their home section: it decides their dates, and what they hand
      in counts once.
    </p>
    <form v-if="leaving" class="line" novalidate @submit.prevent="end">
      <span>Last day in {{ leaving.name }}</span>
      <DateField v-model="last" label="Last day" :min="one.term.first" :max="one.term.last" />
      <v-btn type="submit" :disabled="!last || leave.busy.value">Leave {{ leaving.name }}</v-btn>
      <v-btn @click="leaving = null">Stay</v-btn>
    </form>
    <ProblemNote
      v-if="setHome.problem.value ?? leave.problem.value"
      :problem="(setHome.problem.value ?? leave.problem.value)!"
    />
  </div>
</template>

<style scoped>
li {
  padding: var(--space-3) 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.said {
  padding: var(--space-4) 0;
}
</style>
