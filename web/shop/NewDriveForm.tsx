import { Button, Input, Modal } from 'antd';
import { useId, useState, type FormEvent } from 'react';
import { Choice } from '../ui/Choice';
import { useTyped } from '../ui/typed-text';
import { addBelt, type Drive, newBelt, newDrive } from '@emery/core/drive';
import { SECTIONS } from '@emery/core/section';

const KINDS = SECTIONS.map(({ name, kind }) => ({
  value: name,
  label: `${name}, ${{ ribbed: 'ribbed (serpentine)', vee: 'V-belt', toothed: 'toothed' }[kind]}`,
}));

/** What a new drive starts from: a name and the kind of its first belt. */
export function NewDriveForm({
  vehicle,
  onMake,
  onClose,
}: {
  vehicle: string;
  onMake: (drive: Drive) => Promise<unknown>;
  onClose: () => void;
}) {
  const [name, setName] = useTyped('drive', 'Front drive');
  const [section, setSection] = useState('PK');
  const [problem, setProblem] = useState('');
  const id = useId();
  const close = () => {
    setName('Front drive');
    onClose();
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const drive = newDrive(name.trim() || 'Front drive');
    try {
      await onMake(addBelt(drive, newBelt(drive, section)));
      setName('Front drive');
    } catch (error) {
      setProblem(`Not made. ${(error as Error).message}`);
    }
  };
  return (
    <Modal title={`New drive for ${vehicle}`} open onCancel={close} footer={null} mask={{ closable: false }}>
      <form onSubmit={(event) => void submit(event)}>
        <label className="label" htmlFor={id}>
          Name
        </label>
        <Input
          id={id}
          value={name}
          maxLength={200}
          autoFocus
          onFocus={(event) => event.target.select()}
          onChange={(event) => setName(event.target.value)}
        />
        <p className="field-echo" />
        <Choice label="Belt section" value={section} options={KINDS} onChange={setSection} />
        <p className="field-echo">More belts are added on the bench.</p>
        {problem && (
          <p className="field-echo is-wrong" role="alert">
            {problem}
          </p>
        )}
        <div className="button-row">
          <Button type="primary" htmlType="submit">
            Open it on the bench
          </Button>
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Modal>
  );
}
