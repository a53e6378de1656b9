import { useEffect, useRef, useState } from 'react';
import { answerSignIn, onSignInAsked } from '../../door/askToSignIn.ts';
import { SignInForm } from './SignInForm.tsx';
import { useForgetAll, useWho } from '../../session/who.ts';

/** Opens over whatever is on the screen when a write finds that the session has ended; the page keeps what was typed. */
export function SignInDialog() {
  const [isAsking, setAsking] = useState(false);
  const dialog = useRef<HTMLDialogElement>(null);
  const who = useWho();
  const forgetAll = useForgetAll();
  useEffect(() => onSignInAsked(setAsking), []);
  useEffect(() => {
    if (isAsking) dialog.current?.showModal();
    else dialog.current?.close();
  }, [isAsking]);
  return (
    <dialog
      ref={dialog}
      className="modal"
      aria-labelledby="sign-in-again"
      onCancel={(event) => {
        event.preventDefault();
        answerSignIn(false);
      }}
    >
      {isAsking && (
        <div className="modal-box border-base-content border">
          <h2 id="sign-in-again">Your session has ended</h2>
          <p className="text-quiet mb-4">Sign in again and it goes on where you were. Nothing is lost.</p>
          <SignInForm
            isDemo={who.data?.isDemo ?? false}
            onSignedIn={async () => {
              answerSignIn(true);
              await forgetAll();
            }}
          />
          <button type="button" className="btn btn-ghost mt-3" onClick={() => answerSignIn(false)}>
            Not now
          </button>
        </div>
      )}
    </dialog>
  );
}
