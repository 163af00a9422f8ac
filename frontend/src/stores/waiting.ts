// Steps that are not on disk yet: kept in the browser, over a reload too, until they are.
import type { Command } from '@/api/types';

export interface Waiting {
  /** Under which the server does it once, however often it is sent. */
  key: string;
  command: Command;
}

const place = (drawing: string) => `dotstack waiting ${drawing}`;

/** The steps that wait for a drawing's server, in order. */
export function waitingFor(drawing: string): Waiting[] {
  return JSON.parse(localStorage.getItem(place(drawing)) ?? '[]') as Waiting[];
}

function keep(drawing: string, steps: Waiting[]): void {
  if (steps.length) localStorage.setItem(place(drawing), JSON.stringify(steps));
  else localStorage.removeItem(place(drawing));
}

/** A step waits, in its place if it does already. */
export function wait(drawing: string, step: Waiting): void {
  const steps = waitingFor(drawing);
  if (!steps.some(({ key }) => key === step.key)) keep(drawing, [...steps, step]);
}

/** The step was done, or refused: it waits no longer. */
export function settle(drawing: string, key: string): void {
  keep(
    drawing,
    waitingFor(drawing).filter((step) => step.key !== key),
  );
}

/** What a step does, in a word. */
export function wordOf(command: Command): string {
  if (command.kind === 'add-shape') return `add ${command.node.name}`;
  if (command.kind === 'transform') return 'move';
  if (command.kind === 'set-parameters')
    return `change ${Object.keys(command.parameters ?? {}).join(', ') || 'corners'}`;
  return command.kind.replaceAll('-', ' ');
}
