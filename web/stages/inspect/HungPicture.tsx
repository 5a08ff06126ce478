import { DeleteOutlined } from '@ant-design/icons';
import { App as AntApp, Button } from 'antd';
import { edit, useBench } from '../../state/bench';
import { PictureButton } from '../../ui/PictureButton';
import { pictureAddress } from '../../views/picture/address';
import { INSPECT_CHECK_NAMES, type InspectFinding } from '@emery/core/drive';
import { hangPicture } from '@emery/core/inspect';

/** The picture that hangs on a finding, or the button that hangs one. */
export function HungPicture({ finding: { id, check, photo } }: { finding: InspectFinding }) {
  const { dispatch } = useBench('dispatch');
  const { modal } = AntApp.useApp();
  const name = INSPECT_CHECK_NAMES[check];
  if (!photo)
    return (
      <div className="button-row">
        <PictureButton
          label="Attach a picture"
          what={`Picture of ${name.toLowerCase()}`}
          onKept={(kept) => dispatch(edit((d) => hangPicture(d, id, kept)))}
        />
      </div>
    );
  const show = () =>
    modal.info({
      title: name,
      icon: null,
      footer: null,
      closable: true,
      mask: { closable: true },
      width: 'min(94vw, 1100px)',
      content: <img className="hung-large" src={pictureAddress(photo.hash)} alt={`Picture of ${name.toLowerCase()}`} />,
    });
  return (
    <div className="hung">
      <button type="button" className="hung-small" onClick={show} aria-label={`Picture: ${name}`}>
        <img src={pictureAddress(photo.hash)} alt="" />
      </button>
      <Button
        icon={<DeleteOutlined />}
        aria-label={`Remove picture, ${name}`}
        onClick={() => dispatch(edit((d) => hangPicture(d, id, null)))}
      />
    </div>
  );
}
