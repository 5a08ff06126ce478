import { CameraOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useRef, useState, type ReactNode } from 'react';
import { PHOTO_TYPES, sendPhoto } from '../api/photos';
import { WithPhone } from '../take/WithPhone';
import type { KeptPicture } from '@emery/core/drive';

interface Props {
  /** What the button says, and what the file is called for who does not see it. */
  label: string;
  what: string;
  /** What a phone is asked for; as it is called, where left out. */
  forPhone?: string;
  primary?: boolean;
  /** Once the server keeps it. */
  onKept: (picture: KeptPicture) => void;
  /** Where given, the button stands in a place that a picture can be dropped on. */
  around?: (button: ReactNode) => ReactNode;
}

/** Takes a picture in, from the camera, a file, or dropped: sent with how far it has come, and can be cancelled. */
export function PictureButton({ label, what, forPhone = what, primary = false, onKept, around }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [sending, setSending] = useState<{ share: number; cancel: () => void } | null>(null);
  const [problem, setProblem] = useState('');

  const take = async (file: File | undefined) => {
    if (!file) return;
    const stop = new AbortController();
    setProblem('');
    setSending({ share: 0, cancel: () => stop.abort() });
    try {
      onKept(await sendPhoto(file, (share) => setSending((now) => now && { ...now, share }), stop.signal));
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setSending(null);
    }
  };

  const button = (
    <>
      <input
        ref={input}
        type="file"
        hidden
        accept={PHOTO_TYPES.join(',')}
        aria-label={what}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <Button
        type={primary ? 'primary' : 'default'}
        icon={<CameraOutlined />}
        disabled={sending !== null}
        onClick={() => input.current?.click()}
      >
        {label}
      </Button>
      <WithPhone kind="picture" label={forPhone} onPicture={onKept} />
      {sending && (
        <span className="quiet" role="status">
          {sending.share < 1 ? `Sending, ${Math.round(100 * sending.share)} %` : 'Rotating it upright'}{' '}
          <Button onClick={sending.cancel}>Cancel</Button>
        </span>
      )}
      {problem && (
        <p className="field-echo is-wrong" role="alert">
          {problem}
        </p>
      )}
    </>
  );
  if (!around) return button;
  return (
    <div
      className="picture-intake"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void take(event.dataTransfer.files[0]);
      }}
    >
      {around(button)}
      <p className="quiet">
        Or drop one here: JPEG, PNG or WebP up to 20 MB. Place and time of the picture are removed.
      </p>
    </div>
  );
}
