import { Navigate, useNavigate, useSearchParams } from 'react-router';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import { Loading } from '../../ui/states.tsx';
import { SignInForm } from './SignInForm.tsx';
import { useForgetAll, useWho } from '../../session/who.ts';

/** Only a path of this application: a link must not lead elsewhere. */
function targetOf(wanted: string | null): string {
  return wanted && /^\/(?![/\\])/.test(wanted) ? wanted : '/';
}

export function SignInPage() {
  const who = useWho();
  const forgetAll = useForgetAll();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  if (who.isPending) return <Loading what="Opening" />;
  if (who.data && !who.data.isSetUp) return <Navigate to="/set-up" replace />;
  return (
    <PlainFrame title="Sign in">
      <SignInForm
        isDemo={who.data?.isDemo ?? false}
        onSignedIn={async () => {
          await forgetAll();
          await navigate(targetOf(search.get('to')), { replace: true });
        }}
      />
    </PlainFrame>
  );
}
