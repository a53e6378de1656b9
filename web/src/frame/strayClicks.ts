/**
 * The second click of a double click belongs to what the first one hit. Where that closed a form or drew the page anew,
 * something else lies under the finger by then, and would be tapped by nobody's wish.
 */

/** What a click is meant for: the nearest thing that takes clicks. */
const targetOf = ({ target }: MouseEvent): Element | null => {
  if (!(target instanceof Element)) return null;
  return target.closest('button, a, input, select, textarea, summary, label') ?? target;
};

/** Lets no second click of a double click through to another thing; gives back how to stop it. */
export function swallowStrayClicks(page: EventTarget): () => void {
  let first: Element | null = null;
  const onClick = (event: Event): void => {
    const click = event as MouseEvent;
    // A key's click counts none.
    if (click.detail > 1 && first !== null && targetOf(click) !== first) {
      click.preventDefault();
      click.stopImmediatePropagation();
      return;
    }
    first = click.detail === 0 ? null : targetOf(click);
  };
  page.addEventListener('click', onClick, { capture: true });
  return () => page.removeEventListener('click', onClick, { capture: true });
}
