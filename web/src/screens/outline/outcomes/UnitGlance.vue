<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../../foundation/api/questions'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'

/** A unit at a glance, made from what is in it: what there is to do, and what students should be able to do at its end. */
const props = defineProps<{ edition: number; unit: number }>()

const levels = useLevels()
const viewpoint = useViewpoint()
const unit = useAnswer(() => questions.unit(props.edition, props.unit, viewpoint.query.value))
const glance = computed(() => unit.data.value)
</script>

<template>
  <section v-if="glance?.contents" class="glance" aria-label="At a glance">
    <p>
      {{ glance.contents[0]!.toUpperCase() + glance.contents.slice(1)
      }}{{ glance.unpublished ? `, ${glance.unpublished} not published yet` : '' }}.
    </p>
    <template v-if="glance.outcomes.length">
      <p class="second">At the end students should be able to:</p>
      <ul>
        <li v-for="one in glance.outcomes" :key="one.code">
          <b>{{ one.code }}</b> {{ one.words }} <span class="second">{{ one.items.join(', ') }}</span>
        </li>
      </ul>
    </template>
    <p v-else class="second">
      None of its {{ levels.item.many }} has an outcome yet. Open {{ levels.item.a }} to choose some.
    </p>
  </section>
</template>

<style scoped>
.glance {
  display: grid;
  gap: var(--space-2);
  max-width: 90ch;
}
ul {
  list-style: none;
  display: grid;
  gap: var(--space-2);
}
</style>
