import { counted } from '../foundation/words'

/** A length in what the course is measured in: `1 class`, `3 classes`, `50 minutes`. */
export const amount = (length: number, unit: string): string =>
  counted(length, unit === 'classes' ? 'class' : 'minute', unit)
