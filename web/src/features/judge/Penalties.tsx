import { INFRACTIONS, type Infraction, type LengthSheet } from '@lauta/core/rules';
import { INFRACTION_WORDS, penaltyWords } from '@lauta/words/catch';

/** The sheet's own table of infractions; others can be noted without effect on the score. */
export function Penalties({
  sheet,
  infractions,
  toggle,
}: {
  sheet: LengthSheet;
  infractions: readonly Infraction[];
  toggle: (infraction: Infraction) => void;
}) {
  const listed = sheet.penalties.map((rule) => rule.infraction);
  const others = INFRACTIONS.filter((one) => !listed.includes(one));
  return (
    <fieldset>
      <legend className="font-semibold">Infractions</legend>
      <ul>
        {sheet.penalties.map(({ infraction, penalty }, i) => (
          <li key={infraction}>
            <label className="hover:bg-base-200 flex min-h-6.5 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={infractions.includes(infraction)}
                onChange={() => toggle(infraction)}
              />
              <span className="grow">{INFRACTION_WORDS[infraction]}</span>
              <span className="num text-quiet text-sm">{penaltyWords(penalty, sheet.measure.step)}</span>
              {i < 9 && <kbd className="key">{i + 1}</kbd>}
            </label>
          </li>
        ))}
      </ul>
      <details>
        <summary className="linklike min-h-7 cursor-pointer text-sm">
          Note another, without effect on the score
        </summary>
        {others.map((infraction) => (
          <label key={infraction} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={infractions.includes(infraction)}
              onChange={() => toggle(infraction)}
            />
            {INFRACTION_WORDS[infraction]}
          </label>
        ))}
      </details>
    </fieldset>
  );
}
