import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';

/** A text that a person may read, and where it is written. */
export interface Text {
  file: string;
  line: number;
  text: string;
  /** Whether it stands in an element or in an attribute of one. */
  inElement: boolean;
  /** Whether it is what a field of the file is called, which stands beside the field's schema. */
  namesField: boolean;
}

const FOLDERS = ['core', 'web', 'server', 'cli'];
const LEFT_OUT = new Set(['node_modules', 'dist', 'test', 'public']);
/** Attributes that nobody reads. */
const UNREAD = new Set(['className', 'style', 'd', 'viewBox', 'key', 'id', 'htmlFor', 'href', 'to', 'type', 'role']);
/** Queries, and lists of words that a search takes or leaves. */
const QUERY = /\b(SELECT|INSERT|UPDATE|DELETE|REPLACE|ALTER|CREATE|DROP|FROM|WHERE)\b|^SET @/;

/** The source files of the program, tests and what serves them left out, from the project's folder. */
export function sourceFiles(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (LEFT_OUT.has(entry.name)) return [];
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) return sourceFiles(at);
    return /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$|\.d\.ts$/.test(entry.name) ? [at] : [];
  });
}

export const parsed = (file: string): ts.SourceFile =>
  ts.createSourceFile(
    file,
    readFileSync(file, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );

/** Whether a string reads like words: several of them, or one that begins as a sentence or a label does. */
const isWords = (text: string) => /[A-Za-z]{2,}.*\s.*[A-Za-z]|^[A-Z][a-z]+[.…:?!]?$/.test(text) && !QUERY.test(text);

/** The name in `is.named(name, schema)` and in `is.variants(by, name, …)`. */
const namesField = ({ parent, ...node }: ts.Node): boolean => {
  if (!ts.isCallExpression(parent)) return false;
  const at = parent.arguments.findIndex(({ pos, end }) => pos === node.pos && end === node.end);
  const called = parent.expression.getText();
  return (/^(is\.)?named$/.test(called) && at === 0) || (called === 'is.variants' && at === 1);
};

/** What the sources hold that a person may read: texts of elements, strings and templates, their sums left out. */
export function textsOf(file: string): Text[] {
  const source = parsed(file);
  const texts: Text[] = [];
  const put = (node: ts.Node, text: string, inElement: boolean) => {
    const plain = text
      .replace(/&rsquo;/g, '’')
      .replace(/\s+/g, ' ')
      .trim();
    if (/[A-Za-z]{2}/.test(plain))
      texts.push({
        file,
        line: source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
        text: plain,
        inElement,
        namesField: namesField(node),
      });
  };
  const visit = (node: ts.Node, inElement: boolean): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxAttribute(node) && UNREAD.has(node.name.getText(source))) return;
    if (ts.isJsxText(node)) put(node, node.text, true);
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      if (isWords(node.text)) put(node, node.text, inElement);
    } else if (ts.isTemplateExpression(node)) {
      const words = [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join(' … ');
      if (/[A-Za-z]{3,}/.test(words) && /\s/.test(words) && isWords(words)) put(node, words, inElement);
    }
    const within = inElement || ts.isJsxElement(node) || ts.isJsxSelfClosingElement(node) || ts.isJsxAttribute(node);
    ts.forEachChild(node, (child) => visit(child, within));
  };
  visit(source, false);
  return texts;
}

export const allTexts = (): Text[] => FOLDERS.flatMap(sourceFiles).flatMap(textsOf);
