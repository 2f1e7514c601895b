/** What a photo of a job shows: how it was found, or how it is left. */
export const PHOTO_STAGES = ['before', 'after'] as const
export type PhotoStage = (typeof PHOTO_STAGES)[number]
export const PHOTO_STAGE_NAMES: Record<PhotoStage, string> = { before: 'Before', after: 'After' }
