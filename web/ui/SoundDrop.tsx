import { FileButton } from './FileButton';

/** A place to drop a sound file, or to choose one. */
export function SoundDrop({
  text,
  onFile,
  ...button
}: {
  text: string;
  label: string;
  what: string;
  accept: string;
  onFile: (file: File) => void;
}) {
  return (
    <div
      className="sound-drop"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const file = event.dataTransfer.files[0];
        if (file) onFile(file);
      }}
    >
      <p>{text}</p>
      <FileButton {...button} onFile={onFile} />
    </div>
  );
}
