import { describe, expect, it } from 'vitest';
import { parseCareChoices } from './careChoices.ts';

describe('what a person chose for the water', () => {
  it('is as usual where nothing, or nothing readable, is stored', () => {
    for (const text of [null, '', '{', '7', 'null', '[]'])
      expect(parseCareChoices(text)).toMatchObject({ schools: {}, hints: { speech: false, tone: true } });
  });

  it('is taken as far as it fits', () => {
    const text = JSON.stringify({
      schools: { tail: 'pinched', hand: 7 },
      hints: { tone: false, smell: true, speech: 'yes' },
      waterCelsius: 19.5,
      airCelsius: 900,
    });
    expect(parseCareChoices(text)).toEqual({
      schools: { tail: 'pinched' },
      hints: { tone: false, vibration: true, speech: false, advice: true },
      waterCelsius: 19.5,
      airCelsius: null,
    });
  });
});
