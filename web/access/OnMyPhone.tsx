import { MobileOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { useMe } from '../api/access';
import { lazyPart } from '../parts/lazy-part';

const PhoneDialog = lazyPart('The code', () => import('./PhoneDialog'));

interface Props {
  /** What is in hand there besides the page, as part of its address. */
  place?: () => string;
}

/** Shows a code by which a phone stands at this very page, signed in as who shows it. */
export function OnMyPhone({ place = () => '' }: Props) {
  const [shown, setShown] = useState<string | null>(null);
  const { pathname } = useLocation();
  const me = useMe();
  if (me?.role === 'lent') return null;
  return (
    <>
      <Button
        type="text"
        className="on-my-phone"
        icon={<MobileOutlined />}
        aria-label="On my phone"
        onClick={() => setShown(`${pathname}${place()}`)}
      >
        <span className="on-my-phone-words">On my phone</span>
      </Button>
      {shown !== null && <PhoneDialog place={shown} machine={me?.machine ?? false} onClose={() => setShown(null)} />}
    </>
  );
}
