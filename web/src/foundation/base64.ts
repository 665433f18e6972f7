/** A file as it travels. */
export async function base64Of(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const pieces: string[] = []
  // A call takes only so many arguments.
  for (let at = 0; at < bytes.length; at += 30_000) pieces.push(String.fromCharCode(...bytes.subarray(at, at + 30_000)))
  return btoa(pieces.join(''))
}
