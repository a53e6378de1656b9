/** Holds a write back while its sender signs in again, so that nothing typed is lost. */
type Listener = (isAsking: boolean) => void;

let waiting: { resolve: () => void; reject: (error: Error) => void }[] = [];
const listeners = new Set<Listener>();

const tell = (): void => listeners.forEach((listener) => listener(waiting.length > 0));

export class SignInGivenUp extends Error {}

/** Resolves when someone has signed in, rejects when the question was closed. */
export function askToSignIn(): Promise<void> {
  return new Promise((resolve, reject) => {
    waiting.push({ resolve, reject });
    tell();
  });
}

export function answerSignIn(isSignedIn: boolean): void {
  const answered = waiting;
  waiting = [];
  for (const one of answered) {
    if (isSignedIn) one.resolve();
    else one.reject(new SignInGivenUp('not signed in'));
  }
  tell();
}

export function onSignInAsked(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
