import type { VitalitySign } from '@lauta/core/care';

export const SIGN_WORDS: Record<VitalitySign, string> = {
  upright: 'It keeps itself upright.',
  gills: 'Its gill covers beat evenly.',
  'tail-grab': 'It bursts away when the tail is held.',
  fins: 'Its pectoral fins beat.',
  pulls: 'It pulls or bites down.',
};
