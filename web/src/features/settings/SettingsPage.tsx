import { SCHOOLS, SCHOOL_PLACES, schoolsFirstAt, sideOf, type KnownSchool } from '@lauta/core/care';
import { schoolWords } from '@lauta/words/schools';
import { useWho } from '../../session/who.ts';
import { RECEIVERS, chooseReceiver, useReceiverChoice, type ReceiverChoice } from '../../position/usePosition.ts'; // prettier-ignore
import { OwnDevices } from './OwnDevices.tsx';
import { HINT_KINDS, HINT_WORDS, changeCareChoices, useCareChoices } from '../../care/careChoices.ts';
import { PLACE_WORDS } from '@lauta/words/care';

/** Each person's own way of working on the water: the schools, and which hints speak. */
export function SettingsPage() {
  const { hints } = useCareChoices();
  return (
    <div className="grid max-w-3xl gap-6">
      <div>
        <h1>Settings</h1>
        <p className="text-quiet">
          Careful anglers disagree; both sides are common practice. What the event’s rule sheet says holds
          over all of them.
        </p>
      </div>
      <section aria-labelledby="hints">
        <h2 id="hints">Hints on the water</h2>
        <div className="ruled">
          {HINT_KINDS.map((kind) => (
            <label key={kind} className="flex min-h-16 items-center justify-between gap-4">
              {HINT_WORDS[kind]}
              <input
                type="checkbox"
                className="toggle toggle-lg flex-none"
                checked={hints[kind]}
                onChange={(change) =>
                  changeCareChoices({ hints: { ...hints, [kind]: change.currentTarget.checked } })
                }
              />
            </label>
          ))}
        </div>
      </section>
      <PositionChoice />
      <OwnDevices />
      {SCHOOL_PLACES.map((place) => {
        const own = schoolsFirstAt(place);
        return own.length === 0 ? null : (
          <section key={place} aria-labelledby={`at-${place}`}>
            <h2 id={`at-${place}`}>{PLACE_WORDS[place]}</h2>
            <div className="ruled">
              {own.map((school) => (
                <Choice key={school.id} school={school} />
              ))}
            </div>
          </section>
        );
      })}
      <p className="text-quiet text-sm">{SCHOOLS.length} questions; kept on this device.</p>
    </div>
  );
}

const RECEIVER_WORDS: Record<ReceiverChoice, string> = {
  device: 'by this device’s receiver',
  simulated: 'simulated: a boat that drifts over Kestrel Mere',
  none: 'none: the judge sees that it is missing',
};

function PositionChoice() {
  const who = useWho();
  const isDemo = who.data?.isDemo ?? false;
  const chosen = useReceiverChoice(isDemo);
  return (
    <fieldset>
      <legend className="contents">
        <h2>Position of a capture</h2>
      </legend>
      <p className="text-quiet">Signed with each photograph; the exact place is seen by judges alone.</p>
      {RECEIVERS.filter((one) => one !== 'simulated' || isDemo).map((one) => (
        <label key={one} className="flex min-h-11 items-center gap-3">
          <input
            type="radio"
            className="radio flex-none"
            name="receiver"
            checked={chosen === one}
            onChange={() => chooseReceiver(one)}
          />
          {RECEIVER_WORDS[one]}
        </label>
      ))}
    </fieldset>
  );
}

function Choice({ school }: { school: KnownSchool }) {
  const { schools } = useCareChoices();
  const chosen = sideOf(school.id, schools);
  const words = schoolWords(school.id);
  return (
    <fieldset className="py-3">
      <legend className="contents">
        <b>{words.question}</b>
      </legend>
      {school.sides.map((side) => (
        <label key={side} className="flex min-h-11 items-center gap-3">
          <input
            type="radio"
            className="radio flex-none"
            name={school.id}
            checked={chosen === side}
            onChange={() => changeCareChoices({ schools: { ...schools, [school.id]: side } })}
          />
          <span>
            {words.sides[side]}
            {side === school.usual && <span className="text-quiet"> (usual)</span>}
          </span>
        </label>
      ))}
    </fieldset>
  );
}
