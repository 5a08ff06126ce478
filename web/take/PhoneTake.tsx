import { Button, Progress } from 'antd';
import { useEffect, useEffectEvent, useState } from 'react';
import { PhoneCode } from '../access/PhoneCode';
import { Dialog } from '../ui/Dialog';
import { TAKE, TOGETHER } from '../together/words';
import { askPhone, followTake, moveTake, phonesThere, soundOfTake, type PhoneTakeProps } from './takes';
import './take.css';
import type { HereDevice, Take } from '@emery/core/api';

/** Asks a phone, follows how far it is, and hands on what came of it. */
function usePhone({ kind, label, unit, onPicture, onSound, onText, onClose }: PhoneTakeProps) {
  const [phones, setPhones] = useState<readonly HereDevice[] | null>(null);
  const [take, setTake] = useState<Take | null>(null);
  const [problem, setProblem] = useState('');
  const failed = (error: Error) => setProblem(error.message);
  const begin = (to: string | null) => {
    setProblem('');
    askPhone({ kind, label, ...(unit !== undefined && { unit }) }, to).then(setTake, failed);
  };
  const look = useEffectEvent(() =>
    phonesThere().then((found) => {
      setPhones(found);
      // One phone is meant; none gets a code to open the request with.
      if (found.length < 2) begin(found[0]?.device ?? null);
    }, failed),
  );
  useEffect(() => void look(), []);
  const hand = useEffectEvent(async (done: Take) => {
    try {
      if (done.result && 'hash' in done.result) onPicture?.(done.result);
      else if (done.result) onText?.(done.result.text);
      else onSound?.(await soundOfTake(done.id, label));
      onClose();
    } catch (error) {
      failed(error as Error);
    }
  });
  const id = take?.id;
  useEffect(() => {
    if (id === undefined) return;
    return followTake(id, (now) => {
      setTake(now);
      if (now.state === 'done') void hand(now);
    });
  }, [id]);
  return { phones, take, problem, begin };
}

/** On the bench: which phone, how far it is, and what came of it handed on. */
export default function PhoneTake(props: PhoneTakeProps) {
  const { kind, label, onClose } = props;
  const { phones, take, problem, begin } = usePhone(props);
  const cancel = () => {
    if (take && take.state !== 'done') void moveTake(take.id, { state: 'none' }).catch(() => undefined);
    onClose();
  };
  return (
    <Dialog title={TAKE.title(kind, label)} onClose={cancel} width={620}>
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
      {phones && phones.length > 1 && !take && <WhichPhone phones={phones} onChoose={begin} />}
      {take && (
        <p className="take-state" role="status" data-state={take.state}>
          {TAKE.state(take.state, take.part)}
        </p>
      )}
      {take?.state === 'sending' && <Progress percent={take.part} />}
      {take?.to === null && take.state === 'asked' && (
        <>
          <p>{TAKE.none}</p>
          <PhoneCode asked={{ place: `/take/${take.id}` }} />
        </>
      )}
      <div className="button-row">
        {take?.state === 'none' && (
          <Button type="primary" onClick={() => begin(take.to)}>
            {TAKE.button(kind)}
          </Button>
        )}
        {take && take.to !== null && take.state === 'asked' && (
          <Button onClick={() => begin(null)}>{TAKE.other}</Button>
        )}
        <Button onClick={cancel}>{TAKE.cancel}</Button>
      </div>
    </Dialog>
  );
}

interface WhichProps {
  phones: readonly HereDevice[];
  onChoose: (device: string | null) => void;
}

function WhichPhone({ phones, onChoose }: WhichProps) {
  return (
    <>
      <p>{TAKE.which}</p>
      <div className="button-row">
        {phones.map(({ device, name, kind }) => (
          <Button key={device} size="large" onClick={() => onChoose(device)}>
            {TOGETHER.someone(name, kind)}
          </Button>
        ))}
        <Button size="large" onClick={() => onChoose(null)}>
          {TAKE.other}
        </Button>
      </div>
    </>
  );
}
