/** Where an address leads as somebody types it: `school.example` leads there as well; null: nowhere. */
export function whereItLeads(typed: string): string | null {
  const address = typed.trim()
  if (address === '') return null
  if (/^(https?:\/\/|mailto:)/i.test(address)) return address
  return address.includes('@') && !address.includes('/') ? `mailto:${address}` : `https://${address}`
}
