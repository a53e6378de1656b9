import { SIGN_WORDS } from '@lauta/words/vitality';
import { LEFT_WITH, VITALITY_SIGNS, judgeVitality, type SignSeen } from '@lauta/core/care';
import { Signal } from '../ui/Signal.tsx';
import { LEFT_WITH_WORDS, SEEN_WORDS } from '@lauta/words/care';
import { Pick, Picks } from '../ui/Picks.tsx';
import type { ChangeCatch, RunningCatch } from './runningCatch.ts';

const NEXT: Record<SignSeen | 'unseen', SignSeen | null> = {
  unseen: 'yes',
  yes: 'no',
  no: 'doubtful',
  doubtful: null,
};

/** Five signs, a tap each: how the fish left. */
export function VitalityTaps({ running, change }: { running: RunningCatch; change: ChangeCatch }) {
  const { signs, leftWith = [] } = running;
  const vitality = judgeVitality(signs);
  return (
    <fieldset className="grid gap-1">
      <legend className="text-quiet">Signs, as far as you see them in the water; again for no</legend>
      {VITALITY_SIGNS.map((sign) => {
        const seen = signs[sign];
        return (
          <button
            key={sign}
            type="button"
            aria-label={`${SIGN_WORDS[sign]} ${seen ? SEEN_WORDS[seen] : 'not looked at'}`}
            className={`btn h-16 justify-between text-left text-base font-normal ${seen === 'yes' ? 'btn-primary' : ''}`}
            onClick={() =>
              change((now) => {
                const next = NEXT[now.signs[sign] ?? 'unseen'];
                const others = Object.entries(now.signs).filter(([other]) => other !== sign);
                return { ...now, signs: Object.fromEntries(next ? [...others, [sign, next]] : others) };
              })
            }
          >
            {SIGN_WORDS[sign]}
            <b>{seen ? SEEN_WORDS[seen] : '–'}</b>
          </button>
        );
      })}
      <Picks label="Released with">
        {LEFT_WITH.map((one) => (
          <Pick
            key={one}
            isOn={leftWith.includes(one)}
            onPick={() =>
              change((now) => {
                const before = now.leftWith ?? [];
                const isOn = before.includes(one);
                return {
                  ...now,
                  leftWith: isOn ? before.filter((other) => other !== one) : [...before, one],
                };
              })
            }
          >
            {LEFT_WITH_WORDS[one]}
          </Pick>
        ))}
      </Picks>
      {vitality.state !== 'unknown' && (
        <p role="status">
          <Signal tone={vitality.state === 'weak' ? 'look' : 'clear'}>
            {vitality.state === 'weak'
              ? `weak: ${vitality.impaired} of ${vitality.tested} signs missing`
              : `lively: ${vitality.tested - vitality.impaired} of ${vitality.tested} signs seen`}
          </Signal>
          {vitality.state === 'weak' && (
            <span className="block">
              Still within reach? Hold it upright, head into the current, in quiet water, and wait; do not
              push it back and forth. Swimming away is a sign, not a proof.
            </span>
          )}
        </p>
      )}
    </fieldset>
  );
}
