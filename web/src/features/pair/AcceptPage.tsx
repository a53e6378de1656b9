import { useNavigate, useParams } from 'react-router';
import { sendJson } from '../../door/ask.ts';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { fetchWho, useForgetAll, useWho } from '../../session/who.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';

/** Where a partner's phone comes to by the code that it has read. */
export function AcceptPage() {
  const { token = '' } = useParams();
  const who = useWho();
  const forgetAll = useForgetAll();
  const navigate = useNavigate();
  const { run, isBusy, error } = useOnce();
  const pair = async (): Promise<void> => {
    await sendJson('POST', '/api/pairings/accept', { token });
    const { account } = await fetchWho();
    await forgetAll();
    await navigate(account?.pairing ? `/events/${account.pairing.eventId}/water` : '/', { replace: true });
  };
  const other = who.data?.account ?? null;
  return (
    <PlainFrame title="Partner’s phone">
      <p className="mb-4">
        This phone becomes camera or timer for your partner in this event. It can claim and time fish for
        them, and nothing else.
      </p>
      {other && (
        <p className="border-warning mb-4 border-l-4 pl-3">
          {other.name} is signed in here and is signed out by it. What waits to be sent is kept until they
          sign in again.
        </p>
      )}
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary h-16 w-full text-lg"
        disabled={isBusy}
        onClick={() => void run(pair)}
      >
        Pair this phone
      </button>
    </PlainFrame>
  );
}
