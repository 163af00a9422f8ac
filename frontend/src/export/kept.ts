import type { Format, Options } from '@/export/formats';
import { START } from '@/export/formats';

/** What was chosen last, for the next export of this session. */
export const kept: { format: Format; options: Options } = { format: 'svg', options: { ...START } };
