<script setup lang="ts">
import { toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import ProblemNote from '../../parts/ProblemNote.vue'

/** Classes that are over: took place, not finished, went further, one click each; the forecast follows. */
const props = defineProps<{
  edition: number
  section: number
  lessons: Schemas['TodayLesson'][]
  canChange: boolean
}>()

const confirm = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/confirm-taught')
const note = (lesson: number, took: number, done: boolean, version: number) => ({
  lesson,
  took,
  done,
  left: done ? null : 1,
  version,
})
const send = (lessons: ReturnType<typeof note>[]) =>
  confirm.run({ section: props.section, lessons }).catch(() => undefined)
</script>

<template>
  <div v-for="lesson in lessons" :key="lesson.lesson" class="lesson">
    <p>
      {{ lesson.title }} <span class="small">{{ lesson.ended }}</span>
    </p>
    <p v-if="canChange" class="ways">
      <button
        type="button"
        class="word-button"
        :disabled="confirm.busy.value"
        @click="send([note(lesson.lesson, lesson.length, true, lesson.version)])"
      >
        took place
      </button>
      <button
        type="button"
        class="word-button"
        :disabled="confirm.busy.value"
        @click="send([note(lesson.lesson, lesson.length, false, lesson.version)])"
      >
        not finished
      </button>
      <button
        v-if="lesson.next"
        type="button"
        class="word-button"
        :title="`“${lesson.nextTitle}” was taught along with it`"
        :disabled="confirm.busy.value"
        @click="
          send([
            note(lesson.lesson, lesson.length, true, lesson.version),
            note(lesson.next, 0, true, lesson.nextVersion),
          ])
        "
      >
        got further
      </button>
      <router-link
        :to="{ name: 'sections', params: { edition }, query: { section, lost: lesson.class } }"
        title="The class did not take place: see what can be done about it"
        >did not take place</router-link
      >
    </p>
  </div>
  <ProblemNote v-if="confirm.problem.value" :problem="confirm.problem.value" />
</template>

<style scoped>
.lesson {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 var(--space-5);
}
.ways {
  display: flex;
  gap: var(--space-5);
}
</style>
