import { ApiProblem } from '../door/ask.ts';
import { Signal } from './Signal.tsx';
import { problemWords } from '../problem/words.ts';

/** Says in place what was refused, field by field where the server named fields. */
export function ProblemNote({ error }: { error: unknown }) {
  if (!error) return null;
  const issues = error instanceof ApiProblem ? (error.problem.issues ?? []) : [];
  return (
    <div role="alert" className="border-error border-l-4 py-1 pl-3">
      <Signal tone="fault">not done</Signal>
      <p>{problemWords(error)}</p>
      {issues.length > 0 && (
        <ul className="list-disc pl-5 text-sm">
          {issues.map((issue) => (
            <li key={`${issue.path} ${issue.message}`}>
              {issue.path}: {issue.message}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
