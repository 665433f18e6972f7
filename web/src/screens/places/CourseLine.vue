<script setup lang="ts">
import { computed } from 'vue'
import { type Schemas } from '../../foundation/api/client'
import { useAnswer } from '../../foundation/useAnswer'
import SectionKey from '../../look/marks/SectionKey.vue'
import { sectionLines } from '../../look/theme'
import { counted } from '../../foundation/words'
import { standing } from '../pace/paceWords'
import { questions } from '../../foundation/api/questions'

/** A course: its sections as small lines up the term, how they stand, and what waits for whoever looks. */
const props = defineProps<{ place: Schemas['EditionPlace'] }>()

const pace = useAnswer(() => questions.pace(props.place.edition))
const ribbon = useAnswer(() => questions.ribbon(props.place.edition))
const today = useAnswer(() => questions.today(props.place.edition))

const roles: Record<string, string> = {
  lead: 'you lead it',
  co: 'you teach it with others',
  sections: 'you teach sections of it',
  reader: 'you read it',
}
const WIDE = 330
const HIGH = 62
/** The course's lessons upwards, the term across: one climbing line for each section, dashed for what is to come. */
const lines = computed(() => {
  const [known, term] = [pace.data.value, ribbon.data.value]
  if (!known || !term || known.lessons.length === 0) return []
  const x = (day: number) => ((WIDE * day) / term.days).toFixed(1)
  const y = (place: number) => (HIGH - 2 - ((HIGH - 6) * place) / known.lessons.length).toFixed(1)
  return known.sections.map((section) => {
    const points = section.lessons
      .filter((run) => run.from !== null && run.to !== null)
      .sort((a, b) => a.to! - b.to!)
      .map((run, n) => ({ at: `${x(run.to!)},${y(n + 1)}`, taught: run.state === 'taught' || run.state === 'begun' }))
    const last = points.findLastIndex((point) => point.taught)
    return {
      id: section.id,
      ink: `var(--${sectionLines[section.letter]?.ink ?? 'line'})`,
      taught: points.slice(0, last + 1).map((point) => point.at),
      ahead: points.slice(Math.max(0, last)).map((point) => point.at),
    }
  })
})
const now = computed(() => (ribbon.data.value ? (WIDE * ribbon.data.value.momentAt) / ribbon.data.value.days : null))
const waits = computed(() => {
  const sections = today.data.value?.sections ?? []
  const sum = (of: (section: (typeof sections)[number]) => number) => sections.reduce((n, one) => n + of(one), 0)
  return {
    toRead: sum((one) => one.waiting ?? 0),
    toConfirm: sum((one) => one.toConfirm.length),
    toCheck: sum((one) => one.toCheck.length) + (today.data.value?.course.length ?? 0),
  }
})
</script>

<template>
  <li class="course">
    <router-link :to="{ name: 'today', params: { edition: place.edition } }" class="name">
      <b>{{ place.course }}</b>
      <span class="small">{{ [place.subject, place.title].filter(Boolean).join(', ') }} · {{ roles[place.role] }}</span>
    </router-link>
    <svg :width="WIDE" :height="HIGH" aria-hidden="true">
      <g v-for="line in lines" :key="line.id" fill="none" :stroke="line.ink">
        <polyline :points="line.taught.join(' ')" stroke-width="2" />
        <polyline :points="line.ahead.join(' ')" stroke-width="1.2" stroke-dasharray="3 3" />
      </g>
      <line v-if="now !== null" class="now" :x1="now" :x2="now" y1="0" :y2="HIGH" />
      <line class="ground" x1="0" :x2="WIDE" :y1="HIGH - 1" :y2="HIGH - 1" />
    </svg>
    <ul class="small">
      <li v-for="section in pace.data.value?.sections ?? []" :key="section.id" class="section">
        <SectionKey :letter="section.letter" :name="section.name" short />
        <span :class="{ accent: section.lacking > 0 }">{{ standing(section, pace.data.value!.unit) }}</span>
      </li>
      <li v-if="place.sections === 0">no section yet</li>
    </ul>
    <p class="waits">
      <template v-if="today.data.value">
        <b>{{ waits.toRead ? `${counted(waits.toRead, 'piece')} to read` : 'nothing to read' }}</b>
        <span class="small"
          >{{ waits.toConfirm ? `${waits.toConfirm} to confirm · ` : '' }}{{ waits.toCheck }} to check</span
        >
      </template>
      <span v-else class="small" role="status">{{ today.problem.value?.title ?? 'Reading …' }}</span>
    </p>
  </li>
</template>

<style scoped>
.course {
  display: grid;
  grid-template-columns: 1fr 330px minmax(240px, 1fr) auto;
  align-items: center;
  gap: var(--space-7) var(--space-8);
  padding: var(--space-6) 0;
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.name {
  display: grid;
  text-decoration: none;
}
.name b {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.name:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.section {
  display: flex;
  gap: var(--space-4);
}
.waits {
  display: grid;
  justify-items: end;
}
.now {
  stroke: var(--accent);
}
.ground {
  stroke: var(--ink);
}
@media (max-width: 1000px) {
  .course {
    grid-template-columns: 1fr;
  }
  .waits {
    justify-items: start;
  }
}
</style>
