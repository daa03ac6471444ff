/**
 * A font that ships with the application, to be put into a document.
 * @throws Error where it cannot be fetched
 */
export async function fontAsBase64(name: string): Promise<string> {
  const answer = await fetch(`/fonts/${name}`);
  if (!answer.ok) throw new Error(`The font ${name} could not be fetched.`);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  let text = '';
  for (let start = 0; start < bytes.length; start += 0x8000) text += String.fromCharCode(...bytes.subarray(start, start + 0x8000));
  return btoa(text);
}
