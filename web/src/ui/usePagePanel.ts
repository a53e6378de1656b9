import { useLocation, useNavigate, useSearchParams } from 'react-router';

const NAME = 'panel';

/**
 * A panel that takes the page's whole place. It stands in the address, so that the browser's way back closes it and does
 * not leave the page.
 */
export function usePagePanel(): { panel: string | null; open: (panel: string) => void; close: () => void } {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const location = useLocation();
  const isOwn = (location.state as { isPanel?: boolean } | null)?.isPanel === true;
  return {
    panel: params.get(NAME),
    open: (panel) => void navigate({ search: `?${NAME}=${panel}` }, { state: { isPanel: true } }),
    // One that was opened by its address has nothing of this page behind it.
    close: () => void (isOwn ? navigate(-1) : navigate({ search: '' }, { replace: true })),
  };
}
