import { fieldLabel, fileFields, type FileField } from '@emery/core/drive';

/** More ways to be right than these are told by kind: a finding's figure goes by its check. */
const MOST_ACCEPTED = 4;

/** The page that tells every field of the drive file: name, unit, whether a file needs it, what is accepted. */
export function fieldsPage(): string {
  const parts = Object.entries(fileFields()).map(([way, fields]) =>
    [
      `## ${way === '' ? 'The drive' : `\`${way}\``}`,
      ...(way === '' ? [] : [`${capital(fieldLabel(...split(way)).label)}.`]),
      ['| Field | Name | Unit | Needed | Accepted |', '| --- | --- | --- | --- | --- |', ...rows(fields)].join('\n'),
    ].join('\n\n'),
  );
  return [
    '# Fields of the drive file',
    `Written from the schemas in \`core/drive\` by \`EMERY_WRITE_ANSWERS=1 npx jest cli/file-fields\`; do not edit it by
hand. [The drive file](drive-file.md) says what each means. "Needed" fields belong to every item that can have them: an
arm's length to a sprung arm only. Fields that are not listed are kept as they are.`,
    ...parts,
    '',
  ].join('\n\n');
}

const rows = (fields: Readonly<Record<string, FileField>>) =>
  Object.entries(fields).map(
    ([key, { label, unit = '', needed, accepted }]) =>
      `| \`${key}\` | ${label} | ${unit} | ${needed ? 'yes' : ''} | ${acceptedWords(accepted)} |`,
  );

const acceptedWords = (accepted: readonly string[]) =>
  accepted.length > MOST_ACCEPTED
    ? 'by its kind'
    : accepted.map((text) => text.replace(/^have /, '').replace(/^not be /, 'not ')).join('; ');

const split = (way: string): [holder: string, field: string] => {
  const cut = way.lastIndexOf('.');
  return [way.slice(0, Math.max(0, cut)), way.slice(cut + 1)];
};
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
