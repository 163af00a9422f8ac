/**
 * What a key stands for: letters as they are with Shift or without it, whatever Caps Lock says;
 * where a layout writes others than Latin ones, the letter of the key's place.
 */
export function spelled(event: KeyboardEvent): string {
  const place = /^Key([A-Z])$/.exec(event.code)?.[1];
  const letter = /^[a-z]$/i.test(event.key) ? event.key : /^\p{L}$/u.test(event.key) && place;
  if (!letter) return event.key;
  return event.shiftKey ? letter.toUpperCase() : letter.toLowerCase();
}
