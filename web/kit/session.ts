import { defineStore } from 'pinia'
import { ref } from 'vue'
import { readSelf, signIn, signOut } from '#contract/people'
import type { Self } from '#contract/people'
import { may } from '#core/people'
import type { Permission } from '#core/people'
import { call, CallProblem } from './call'
import { showTimesOf } from './format'
import { showNumbersOf } from './writing'

/** What forgets all it knows when somebody else signs in. */
export const forgetting = new Set<() => void>()

/** Who is signed in on this screen. */
export const useSession = defineStore('session', () => {
  const self = ref<Self | null>(null)
  let asked: Promise<void> | null = null

  function become(person: Self | null): void {
    // Nobody is shown what somebody else has read.
    if (person?.accountId !== self.value?.accountId) forgetting.forEach((forget) => forget())
    self.value = person
    if (!person) return
    showTimesOf(person.site)
    showNumbersOf(person.site)
  }

  /** Asks the server once who this is; nobody is a valid answer. */
  function ensure(): Promise<void> {
    asked ??= call(readSelf, {}).then(become, (problem: unknown) => {
      if (!(problem instanceof CallProblem) || problem.problem.status !== 401) asked = null
      become(null)
    })
    return asked
  }

  async function enter(email: string, password: string): Promise<void> {
    become(await call(signIn, { email, password }))
    asked = Promise.resolve()
  }

  async function leave(): Promise<void> {
    await call(signOut, {})
    become(null)
  }

  /** Who it is by what this device knows itself; the server is asked later. */
  function assume(person: Self): void {
    asked = Promise.resolve()
    become(person)
  }

  /** What the server says of this person after a change to their own settings. */
  const refresh = (person: Self) => become(person)

  const can = (permission: Permission) => self.value !== null && may(self.value.roles, permission)

  return { self, ensure, assume, enter, leave, forget: () => become(null), refresh, can }
})
