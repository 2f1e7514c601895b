/** A device that has not heard of the server for so long locks itself: it may be lost, and nobody can tell it (our own choice, no source). */
export const LONGEST_WITHOUT_CONTACT_DAYS = 14

/** Whether what a device keeps may still be read without asking the server. A clock that was set back opens nothing that is locked: the key is gone by then. */
export const mayOpen = (heardAt: Date, now: Date): boolean => now.getTime() - heardAt.getTime() <= LONGEST_WITHOUT_CONTACT_DAYS * 86_400_000
