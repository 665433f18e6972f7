<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'
import FreeingLines from '../../parts/waiting/FreeingLines.vue'
import NothingOpenList from '../../parts/waiting/NothingOpenList.vue'
import CannotOpenList from './CannotOpenList.vue'
import ToCheck from './ToCheck.vue'
import ToConfirm from './ToConfirm.vue'

/** One section's day, what opens or is due in the week ahead, and what waits for whoever looks. */
defineProps<{ edition: number; section: Schemas['TodaySection']; moment: string; canChange: boolean }>()

/** A week of one section, from the moment in view on. */
const ahead = (local: string): string => {
  const end = new Date(`${local.slice(0, 10)}T00:00Z`)
  end.setUTCDate(end.getUTCDate() + 7)
  return `${local.slice(0, 16)}/${end.toISOString().slice(0, 10)}${local.slice(10, 16)}`
}
</script>

<template>
  <section>
    <header>
      <h2><SectionKey :letter="section.letter" :name="section.name" /></h2>
      <p v-for="one in section.classes" :key="one.start" :class="{ second: one.isOver }">
        <b>{{ one.start }}–{{ one.end }}</b> {{ one.lesson || 'nothing planned' }}
      </p>
      <p v-if="section.classes.length === 0" class="second">no class today</p>
    </header>
    <div>
      <p class="ruled-head small">Opens or is due within a week</p>
      <ul>
        <li v-for="date in section.comes.slice(0, 6)" :key="`${date.what} ${date.item}`" class="date">
          <span class="when">{{ date.at.words }}</span>
          <span
            ><router-link
              :to="{
                name: 'dates',
                query: {
                  ...$route.query,
                  section: section.id,
                  item: date.item,
                  field: date.what === 'opens' ? 'opens' : 'due',
                },
              }"
              ><span class="code">{{ date.code }}</span> {{ date.title }}</router-link
            >{{ ' ' }}<span class="small">{{ date.what }} {{ date.relative }}</span></span
          >
        </li>
      </ul>
      <p v-if="section.comes.length > 6" class="small">
        and {{ section.comes.length - 6 }} more:
        <router-link
          :to="{
            name: 'dates',
            query: { ...$route.query, section: section.id, week: ahead(moment) },
          }"
          >all of this week</router-link
        >
      </p>
      <p v-if="section.comes.length === 0" class="second">nothing</p>
      <p class="small">
        <router-link
          :to="{ name: 'ready', params: { edition, section: section.id }, query: $route.query }"
          :aria-label="`Is it ready? ${section.name}`"
          >is it ready?</router-link
        >
      </p>
    </div>
    <div>
      <p class="ruled-head small">Waits for you</p>
      <CannotOpenList
        v-if="section.cannotOpen.length > 0"
        :edition="edition"
        :list="section.cannotOpen"
        :can-change="canChange"
      />
      <p v-if="section.waiting">
        <router-link :to="{ name: 'work', query: { ...$route.query, section: section.id } }"
          >{{ counted(section.waiting, 'piece') }} to read</router-link
        >, the first handed in {{ section.longestSince }}
      </p>
      <FreeingLines :edition="edition" :section="section.id" :freeing="section.freeing" />
      <NothingOpenList :edition="edition" :groups="section.nothingOpen" />
      <ToConfirm
        v-if="section.toConfirm.length > 0"
        :edition="edition"
        :section="section.id"
        :lessons="section.toConfirm"
        :can-change="canChange"
      />
      <ToCheck :checks="section.toCheck" :edition="edition" />
      <p
        v-if="
          !section.waiting &&
          section.cannotOpen.length + section.nothingOpen.length + section.toConfirm.length + section.toCheck.length ===
            0
        "
        class="second"
      >
        nothing
      </p>
    </div>
  </section>
</template>

<style scoped>
header {
  display: grid;
  align-content: start;
  gap: var(--space-2);
}
section > div {
  display: grid;
  align-content: start;
  gap: var(--space-3);
}
.date {
  display: flex;
  gap: var(--space-5);
  padding: var(--space-1) 0;
}
.date a {
  text-decoration-color: var(--hair);
}
.when {
  flex: none;
  width: 128px;
  color: var(--ink-2);
}
.code {
  color: var(--ink-2);
}
</style>
