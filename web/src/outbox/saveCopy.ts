import { openOutboxStore } from './outboxStore.ts';
import type { FileId } from '@lauta/core/ids';

/** Saves what waits as a file of its own, photographs within it: readable by anyone with a JSON reader (RFC 4648 base64). */
export async function saveCopy(name: string, value: unknown, fileIds: readonly FileId[]): Promise<void> {
  const store = openOutboxStore();
  const files: Record<string, string> = {};
  for (const fileId of fileIds) {
    const blob = await store.file(fileId);
    if (blob) files[fileId] = await dataUrl(blob);
  }
  const text = JSON.stringify({ entry: value, files }, null, 2);
  const href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = href;
  link.download = `${name}.json`;
  link.click();
  URL.revokeObjectURL(href);
}

function dataUrl(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('file: expected to be readable'));
    reader.readAsDataURL(blob);
  });
}
