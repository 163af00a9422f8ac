// Commands, as the compiler checks them.
import type { Command } from '@/api/types';

export type Kind = Command['kind'];
export type Fields<K extends Kind> = Omit<Extract<Command, { kind: K }>, 'kind'>;

/** The command of a kind with these fields. */
export function commandOf<K extends Kind>(kind: K, fields: Fields<K>): Command {
  return { kind, ...fields } as unknown as Command;
}
