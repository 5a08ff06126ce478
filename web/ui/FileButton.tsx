import { UploadOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { useRef } from 'react';

interface Props {
  /** What the button says, and what the file is called for who does not see it. */
  label: string;
  what: string;
  /** As the browser's own chooser takes it. */
  accept: string;
  primary?: boolean;
  disabled?: boolean;
  onFile: (file: File) => void;
}

/** A button that has a file chosen; the same one may be chosen again. */
export function FileButton({ label, what, accept, primary = false, disabled = false, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        type={primary ? 'primary' : 'default'}
        icon={<UploadOutlined />}
        disabled={disabled}
        onClick={() => input.current?.click()}
      >
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={what}
        onChange={({ target }) => {
          const file = target.files?.[0];
          target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
