<script setup lang="ts">
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import { placeOf } from '../why/mends'

/** Who has nothing to work on although something is still to come: by reason, each with what would help. */
const props = defineProps<{ edition: number; groups: readonly Schemas['NothingOpen'][] }>()

const FEW = 3
const route = useRoute()
const viewpoint = useViewpoint()
/** The groups whose students are all named. */
const named = ref<string[]>([])
const keyOf = (group: Schemas['NothingOpen']) => `${group.item} ${group.words}`
const isNamed = (group: Schemas['NothingOpen']) => named.value.includes(keyOf(group))
const shown = (group: Schemas['NothingOpen']) =>
  isNamed(group) || group.students.length <= FEW + 1 ? group.students : group.students.slice(0, FEW)
const turn = (group: Schemas['NothingOpen']) =>
  (named.value = isNamed(group) ? named.value.filter((one) => one !== keyOf(group)) : [...named.value, keyOf(group)])
const why = (student: number, item: number) => ({
  name: 'one-student',
  params: { edition: props.edition, student },
  query: { ...viewpoint.query.value, why: item },
})
</script>

<template>
  <ul v-if="groups.length" aria-label="Nothing open">
    <li v-for="group in groups" :key="keyOf(group)">
      <p>
        <b>Nothing open</b> for {{ counted(group.students.length, 'student') }}: {{ group.words }}
        <router-link
          v-if="group.mend && placeOf(group.mend, edition, route.query)"
          class="small"
          :to="placeOf(group.mend, edition, route.query)!"
          >{{ group.mend.words }}</router-link
        >
      </p>
      <p class="small names">
        <router-link
          v-for="one in shown(group)"
          :key="one.student"
          data-why
          :to="why(one.student, group.item)"
          :title="`Why nothing is open for ${one.name}`"
          >{{ one.name }}</router-link
        >
        <button
          v-if="group.students.length > FEW + 1"
          type="button"
          class="word-button"
          :aria-expanded="isNamed(group)"
          @click="turn(group)"
        >
          {{ isNamed(group) ? 'show fewer' : `and ${group.students.length - FEW} more` }}
        </button>
      </p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--space-4);
  list-style: none;
  padding: 0;
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-5);
}
.names > * {
  padding-block: var(--space-2);
}
</style>
