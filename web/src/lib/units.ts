/** The units that distances are shown in. */
export const UNITS = [
  { value: 'm', label: 'm' },
  { value: 'ft', label: 'ft' },
] as const
