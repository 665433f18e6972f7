import { type RouteLocationNormalized, createRouter, createWebHistory } from 'vue-router'

/** The numbers of an address, as a screen's props. */
const numbers = (route: RouteLocationNormalized) =>
  Object.fromEntries(Object.entries(route.params).map(([name, value]) => [name, Number(value)]))

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/sign-in', name: 'sign-in', component: () => import('./screens/sign-in/SignInScreen.vue') },
    {
      path: '/begin/:token',
      name: 'begin',
      component: () => import('./screens/begin/BeginScreen.vue'),
      props: true,
    },
    {
      path: '/welcome/:token',
      name: 'welcome',
      component: () => import('./screens/begin/WelcomeScreen.vue'),
      props: true,
    },
    { path: '/demo/mail', name: 'caught-mail', component: () => import('./screens/sign-in/CaughtMailScreen.vue') },
    { path: '/join', name: 'join', component: () => import('./screens/sign-in/JoinScreen.vue') },
    { path: '/people', name: 'people', component: () => import('./screens/people/PeopleScreen.vue') },
    { path: '/outcomes', name: 'outcomes', component: () => import('./screens/outcomes/OutcomesScreen.vue') },
    { path: '/people/record', name: 'record', component: () => import('./screens/people/RecordScreen.vue') },
    { path: '/account', name: 'account', component: () => import('./screens/account/AccountScreen.vue') },
    { path: '/', name: 'places', component: () => import('./screens/places/PlacesScreen.vue') },
    { path: '/new-course', name: 'new-course', component: () => import('./screens/editions/new/NewCourseScreen.vue') },
    {
      path: '/terms/:term(\\d+)/calendar',
      name: 'calendar',
      component: () => import('./screens/calendar/CalendarScreen.vue'),
      props: numbers,
    },
    {
      path: '/terms/:term(\\d+)/roster',
      name: 'roster',
      component: () => import('./screens/roster/RosterScreen.vue'),
      props: numbers,
    },
    {
      path: '/editions/:edition(\\d+)/team',
      name: 'team',
      component: () => import('./screens/team/TeamScreen.vue'),
      props: numbers,
    },
    {
      path: '/editions/:edition(\\d+)',
      component: () => import('./parts/shell/TeamShell.vue'),
      props: numbers,
      children: [
        { path: 'today', name: 'today', component: () => import('./screens/today/TodayScreen.vue'), props: numbers },
        {
          path: 'outline',
          name: 'outline',
          component: () => import('./screens/outline/OutlineScreen.vue'),
          props: numbers,
        },
        { path: 'dates', name: 'dates', component: () => import('./screens/dates/DatesScreen.vue'), props: numbers },
        { path: 'pace', name: 'pace', component: () => import('./screens/pace/PaceScreen.vue'), props: numbers },
        {
          path: 'conditions',
          name: 'conditions',
          component: () => import('./screens/conditions/ConditionsScreen.vue'),
          props: numbers,
        },
        {
          path: 'ready/:section(\\d+)',
          name: 'ready',
          component: () => import('./screens/ready/ReadyScreen.vue'),
          props: numbers,
        },
        { path: 'work', name: 'work', component: () => import('./screens/work/WorkScreen.vue'), props: numbers },
        {
          path: 'sections',
          name: 'sections',
          component: () => import('./screens/sections/SectionsScreen.vue'),
          props: numbers,
        },
        {
          path: 'scores',
          name: 'scores',
          component: () => import('./screens/scores/ScoresScreen.vue'),
          props: numbers,
        },
        {
          path: 'editions',
          name: 'editions',
          component: () => import('./screens/editions/EditionsScreen.vue'),
          props: numbers,
        },
        {
          path: 'students/:student(\\d+)',
          name: 'one-student',
          component: () => import('./screens/one-student/OneStudentScreen.vue'),
          props: numbers,
        },
        {
          path: 'joining',
          name: 'joining',
          component: () => import('./screens/joining/JoiningScreen.vue'),
          props: numbers,
        },
        // Through a student's eyes: the student's own screens, fed by the same answers.
        {
          path: 'seen/:section(\\d+)',
          name: 'seen',
          component: () => import('./screens/student/NowScreen.vue'),
          props: numbers,
        },
        {
          path: 'seen/:section(\\d+)/scores',
          name: 'seen-scores',
          component: () => import('./screens/student/OwnScoresScreen.vue'),
          props: numbers,
        },
        {
          path: 'seen/:section(\\d+)/items/:item(\\d+)',
          name: 'seen-item',
          component: () => import('./screens/student/ItemScreen.vue'),
          props: numbers,
        },
        {
          path: 'seen/:section(\\d+)/units/:unit(\\d+)',
          name: 'seen-unit',
          component: () => import('./screens/student/UnitScreen.vue'),
          props: numbers,
        },
      ],
    },
    {
      path: '/sections/:section(\\d+)',
      component: () => import('./parts/shell/StudentShell.vue'),
      children: [
        { path: '', name: 'now', component: () => import('./screens/student/NowScreen.vue'), props: numbers },
        {
          path: 'scores',
          name: 'own-scores',
          component: () => import('./screens/student/OwnScoresScreen.vue'),
          props: numbers,
        },
        {
          path: 'items/:item(\\d+)',
          name: 'student-item',
          component: () => import('./screens/student/ItemScreen.vue'),
          props: numbers,
        },
        {
          path: 'units/:unit(\\d+)',
          name: 'student-unit',
          component: () => import('./screens/student/UnitScreen.vue'),
          props: numbers,
        },
      ],
    },
    { path: '/:rest(.*)*', name: 'nothing', component: () => import('./screens/places/NothingScreen.vue') },
  ],
})
