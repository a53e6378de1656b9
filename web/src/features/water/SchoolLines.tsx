import { schoolsAt, sideOf, type SchoolId, type SchoolPlace } from '@lauta/core/care';
import { useCareChoices } from '../care/choices.ts';

/** What the chosen schools say at a place of the day; the other sides are named in the settings. */
export function SchoolLines({ place }: { place: SchoolPlace }) {
  const { schools } = useCareChoices();
  return (
    <ul className="text-quiet grid gap-0.5 text-sm">
      {schoolsAt(place).map(({ id, sides }) => {
        const chosen = sideOf(id as SchoolId, schools);
        return <li key={id}>{sides.find((side) => side.id === chosen)?.words}</li>;
      })}
    </ul>
  );
}
