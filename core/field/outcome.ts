/** Short lists to close a job with; free text goes beside them. Common practice, no source. */
export const SYMPTOMS = [
  'Not working',
  'Works now and then',
  'Leaking',
  'Noisy',
  'Too warm',
  'Too cold',
  'Blocked',
  'Loose or broken',
  'Alarm',
  'No power',
  'Smell',
  'Worn',
] as const
export const CAUSES = ['Wear', 'Corrosion', 'Blockage', 'Electrical fault', 'Wrong setting', 'Damage', 'Weather', 'Failed part', 'Misuse', 'Not found'] as const
export const FIXES = ['Replaced', 'Repaired', 'Adjusted', 'Cleaned', 'Reset', 'Tightened', 'Made safe', 'No fault found'] as const
