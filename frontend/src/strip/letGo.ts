/** After a click by pointer the keys are for the desk again. */
export function letGo(event: MouseEvent): void {
  if (event.detail) (event.currentTarget as HTMLElement).blur();
}
