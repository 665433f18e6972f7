/** The keys under which answers are kept. What depends on the viewpoint has it in its key. */
export const keys = {
  places: ['places'] as const,
  edition: (edition: number) => ['edition', edition] as const,
  outline: (edition: number, viewpoint: string) => ['edition', edition, 'outline', viewpoint] as const,
  ribbon: (edition: number, viewpoint: string) => ['edition', edition, 'ribbon', viewpoint] as const,
  history: (edition: number) => ['edition', edition, 'history'] as const,
  section: (section: number) => ['section', section] as const,
  demoPeople: ['demo-people'] as const,
}
