import { expect, test } from 'vitest';

import { ACTION_WORDS, KEY_LISTS } from '@/marks/keys';
import { OUTCOME_WORDS } from '@/marks/outcomes';
import { SHAPES } from '@/marks/shapes';

test('all keys are listed for who reads and does not ask the sheet', async () => {
  const lists = KEY_LISTS.map(({ title, keys }) => {
    const rows = keys.map(([key, does]) => `| \`${key}\` | ${does} |`);
    return `## ${title || 'In the editor'}\n\n| Key | Does |\n| --- | --- |\n${rows.join('\n')}\n`;
  });
  await expect(`# Keys\n\n${lists.join('\n')}`).toMatchFileSnapshot('../../../docs/keys.md');
});

test('no key means two things at once', () => {
  const outcomes = Object.values(OUTCOME_WORDS).map(({ key }) => key);
  const actions = Object.values(ACTION_WORDS).map(({ key }) => key);
  const keys = [...outcomes, ...actions, ...SHAPES.map(({ key }) => key)].filter(Boolean);
  const twice = keys.filter((key, i) => keys.indexOf(key) !== i);
  // In a clip or on a line, the key that puts there takes off again; E goes from nodes to corners
  // and back; Enter is for working inside a shape, which in a text is typing.
  expect(twice).toEqual(['Enter', 'Shift+W', 'Shift+Q', 'E']);
});
