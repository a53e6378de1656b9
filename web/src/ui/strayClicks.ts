/**
 * The second click of a double click belongs to what the first one hit. Where that is gone by then, because a form was
 * closed or the page drawn anew, something else lies under the finger and would be tapped by nobody's wish.
 */

/** What a click is meant for: the nearest thing that takes clicks. */
const targetOf = ({ target }: MouseEvent): Element | null => {
  if (!(target instanceof Element)) return null;
  return target.closest('button, a, input, select, textarea, summary, label') ?? target;
};

/**
 * Lets no second click of a double click through to another thing, once the first one's is gone: two quick taps on
 * neighbours count as a double one too.
 */
export function swallowStrayClicks(page: EventTarget): void {
  let first: Element | null = null;
  const onClick = (event: Event): void => {
    const click = event as MouseEvent;
    // A key's click counts none.
    if (click.detail > 1 && first?.isConnected === false) {
      click.preventDefault();
      click.stopImmediatePropagation();
      return;
    }
    first = click.detail === 0 ? null : targetOf(click);
  };
  page.addEventListener('click', onClick, { capture: true });
}
