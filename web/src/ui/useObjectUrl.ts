import { useCallback } from 'react';
import { useResource } from './useResource.ts';

/** An address for a blob, for as long as it is shown. */
export function useObjectUrl(blob: Blob | null | undefined): string | null {
  return useResource(
    useCallback(() => {
      if (!blob) return null;
      const url = URL.createObjectURL(blob);
      return { value: url, close: () => URL.revokeObjectURL(url) };
    }, [blob]),
  );
}
