<script setup lang="ts">
import { computed, nextTick, onScopeDispose, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '../foundation/api/client'
import { problemOf } from '../foundation/api/client'
import { leaveAsked, useAsked } from '../foundation/commands/asking'

/**
 * What a command would do, before it is done: for whom, in a sentence, and by name when asked. The button says what it
 * does; Escape leaves everything as it is.
 */
const asked = useAsked()
const students = ref<Schemas['ReachedStudent'][] | null>(null)
const others = ref(0)
const said = ref('')
const act = useTemplateRef<{ $el: HTMLElement }>('act')
const leave = useTemplateRef<{ $el: HTMLElement }>('leave')
let before: Element | null = null

watch(asked, async (now) => {
  students.value = null
  said.value = ''
  if (now) {
    before = document.activeElement
    await nextTick()
    // What takes something is not done by pressing Enter once more.
    ;(now.answer.reach.effect === 'takes' ? leave.value : act.value)?.$el.focus()
  } else if (before instanceof HTMLElement && before.isConnected) before.focus()
})

async function name(): Promise<void> {
  const now = asked.value
  if (!now?.named) return
  said.value = 'Reading their names …'
  try {
    const { reach } = await now.named()
    students.value = [...(reach.students ?? [])]
    others.value = reach.others
    said.value = reach.students?.length ? '' : 'Nobody you teach.'
  } catch (error) {
    said.value = problemOf(error).title
  }
}

const effects = (one: Schemas['ReachedStudent']) =>
  [
    { words: 'gets', items: one.gains },
    { words: 'loses', items: one.loses },
    { words: 'keeps', items: one.keeps },
    { words: 'overdue', items: one.overdue },
    { words: 'new date for', items: one.moves },
    { words: 'has begun', items: one.begun },
  ].filter((effect) => effect.items.length > 0)
/** Where all of it is about one thing, that is not said in every line. */
const isOne = computed(
  () => new Set((students.value ?? []).flatMap((one) => effects(one).flatMap((effect) => effect.items))).size === 1,
)
const some = (items: readonly string[]) =>
  isOne.value
    ? 'it'
    : items.length > 3
      ? `${items.slice(0, 3).join(', ')} and ${items.length - 3} more`
      : items.join(', ')

// Whatever was asked belongs to the screen it was asked on.
const router = useRouter()
const stop = router.afterEach((to, from) => to.path !== from.path && leaveAsked())
onScopeDispose(stop)
</script>

<template>
  <section
    v-if="asked"
    class="ask"
    role="alertdialog"
    aria-label="Before it is done"
    aria-describedby="what-it-does"
    @keydown.esc.stop.prevent="asked.settle(false)"
  >
    <p id="what-it-does" class="sentence">{{ asked.answer.reach.sentence }}</p>
    <ul v-if="students?.length" class="names" tabindex="0" aria-label="Students">
      <li v-for="one in students" :key="`${one.section} ${one.name}`">
        {{ one.name }} <span class="small">{{ one.section }}</span>
        <template v-for="effect in effects(one)" :key="effect.words"
          >{{ ' '
          }}<span class="effect" :title="effect.items.join('\n')"
            ><span class="small">{{ effect.words }}</span> {{ some(effect.items) }}</span
          ></template
        >
      </li>
    </ul>
    <p v-if="students?.length && others" class="small">and {{ others }} more whom you do not teach.</p>
    <p class="line">
      <v-btn ref="act" class="meant" @click="asked.settle(true)">{{ asked.answer.act || 'Do it' }}</v-btn>
      <v-btn ref="leave" @click="asked.settle(false)">Leave it as it is</v-btn>
      <button v-if="asked.named && !students" type="button" class="word-button" @click="name">Show names</button>
      <span class="small" role="status">{{ said }}</span>
    </p>
  </section>
</template>

<style scoped>
.ask {
  position: fixed;
  inset: auto 0 0;
  z-index: 20;
  display: grid;
  gap: var(--space-5);
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--accent);
  padding: var(--space-7) var(--space-8) var(--space-8);
}
.sentence {
  font-size: var(--size-large);
  max-width: 90ch;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4) var(--space-7);
}
.names {
  max-height: 260px;
  overflow: auto;
  columns: 380px;
  column-gap: var(--space-8);
}
.names li {
  break-inside: avoid;
  padding: var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.effect {
  margin-left: var(--space-5);
}
</style>
