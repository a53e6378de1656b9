import { ApiProblem } from '../../door/http.ts';
import { problemWords } from '../../problem/words.ts';
import type { PhotoRefusal } from './benchProtocol.ts';

export function photoRefusalWords(code: PhotoRefusal): string {
  if (code === 'file-empty')
    return 'The file is empty. Copy it from the camera again, or take another photograph.';
  return problemWords(new ApiProblem({ type: code, title: code, status: 415 }));
}
