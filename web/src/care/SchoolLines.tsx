import { schoolsAt, sideOf, type SchoolPlace } from '@lauta/core/care';
import { schoolWords } from '@lauta/words/schools';
import { useCareChoices } from './careChoices.ts';

/** What the chosen schools say at a place of the day; the other sides are named in the settings. */
export function SchoolLines({ place }: { place: SchoolPlace }) {
  const { schools } = useCareChoices();
  return (
    <ul className="text-quiet grid gap-0.5 text-sm">
      {schoolsAt(place).map(({ id }) => (
        <li key={id}>{schoolWords(id).sides[sideOf(id, schools)]}</li>
      ))}
    </ul>
  );
}
