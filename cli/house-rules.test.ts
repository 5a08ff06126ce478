import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { parsed, sourceFiles, textsOf } from './test/texts';

/*
 * Rules of the house that no lint rule knows, and counts that may only fall: whoever brings one down writes the new
 * count with `EMERY_WRITE_ANSWERS=1 npx jest cli/house-rules`, and nobody brings one up.
 */

const FOLDERS = ['core', 'web', 'server', 'cli'] as const;
const FILES = FOLDERS.flatMap(sourceFiles);
const SOURCES = new Map(FILES.map((file) => [file, parsed(file)]));

interface Import {
  to: string;
  typesOnly: boolean;
  later: boolean;
}

/** The file of ours that a module name leads to; null for a package. */
function fileOf(from: string, name: string): string | null {
  const base = name.startsWith('@emery/core/')
    ? path.join('core', name.slice('@emery/core/'.length), 'index')
    : name.startsWith('.') && path.join(path.dirname(from), name);
  if (!base) return null;
  return [`${base}.ts`, `${base}.tsx`, path.join(base, 'index.ts')].find((file) => SOURCES.has(file)) ?? null;
}

const typesOnly = (node: ts.ImportDeclaration | ts.ExportDeclaration): boolean => {
  if (ts.isExportDeclaration(node)) return node.isTypeOnly;
  const bindings = node.importClause?.namedBindings;
  return (
    node.importClause?.phaseModifier === ts.SyntaxKind.TypeKeyword ||
    (node.importClause?.name === undefined &&
      bindings !== undefined &&
      ts.isNamedImports(bindings) &&
      bindings.elements.every(({ isTypeOnly }) => isTypeOnly))
  );
};

function importsOf(file: string): Import[] {
  const found: Import[] = [];
  const put = (name: ts.Node | undefined, types: boolean, later: boolean) => {
    const to = name && ts.isStringLiteral(name) ? fileOf(file, name.text) : null;
    if (to !== null) found.push({ to, typesOnly: types, later });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) put(node.moduleSpecifier, typesOnly(node), false);
    if (ts.isCallExpression(node) && node.expression.kind === ts.SyntaxKind.ImportKeyword)
      put(node.arguments[0], false, true);
    ts.forEachChild(node, visit);
  };
  visit(SOURCES.get(file)!);
  return found;
}

const IMPORTS = new Map(FILES.map((file) => [file, importsOf(file)]));

/** Files that lead back to themselves, by Tarjan's strongly connected components. */
function circles(): string[][] {
  const [index, low, stack, found] = [
    new Map<string, number>(),
    new Map<string, number>(),
    [] as string[],
    [] as string[][],
  ];
  const walk = (file: string): void => {
    index.set(file, index.size);
    low.set(file, index.get(file)!);
    stack.push(file);
    for (const { to } of IMPORTS.get(file)!) {
      if (!index.has(to)) walk(to);
      if (stack.includes(to)) low.set(file, Math.min(low.get(file)!, low.get(to)!));
    }
    if (low.get(file) !== index.get(file)) return;
    const circle = stack.splice(stack.indexOf(file));
    if (circle.length > 1) found.push(circle);
  };
  for (const file of FILES) if (!index.has(file)) walk(file);
  return found;
}

test('no file imports itself through others', () => {
  // That imports are followed at all.
  expect(IMPORTS.get('core/job/card.ts')!.map(({ to }) => to)).toContain('core/job/steps.ts');
  expect(circles()).toEqual([]);
});

test('web in layers: fields know no drive’s stage, and stages do not import one another', () => {
  const stageOf = (file: string) => /^web\/stages\/([a-z-]+)\//.exec(file)?.[1];
  const wrong = FILES.filter((file) => file.startsWith('web/')).flatMap((file) =>
    IMPORTS.get(file)!.flatMap(({ to }) => {
      const [own, other] = [stageOf(file), stageOf(to)];
      const apart = own !== undefined && other !== undefined && own !== other;
      const upward =
        (/^web\/(ui|views|theme|paper|sound)\//.test(file) &&
          /^web\/(stages\/[a-z-]+|bench|shop|counter|jobs|records|card|stock)\//.test(to)) ||
        (/^web\/stages\//.test(file) && /^web\/(shop|counter|records|card|specimens)\//.test(to));
      return apart || upward ? [`${file} → ${to}`] : [];
    }),
  );
  expect(wrong).toEqual([]);
});

/** Names that say nothing of what they hold, or that the trade has another word for. */
const VAGUE = ['one', 'told', 'of', 'whole', 'least', 'most'];

/** A name given here; one that is taken over from a field of that name is the field's. */
function isVague(node: ts.Node): boolean {
  const named =
    ts.isParameter(node) ||
    ts.isVariableDeclaration(node) ||
    ts.isFunctionDeclaration(node) ||
    (ts.isBindingElement(node) && (node.propertyName !== undefined || ts.isArrayBindingPattern(node.parent)));
  return named && node.name !== undefined && ts.isIdentifier(node.name) && VAGUE.includes(node.name.text);
}

/** What is counted, by folder. */
function counted() {
  const count = { unchecked: 0, longFunctions: 0, longest: 0, texts: 0, vagueNames: 0, lines: 0 };
  const by = new Map<string, typeof count>(FOLDERS.map((folder) => [folder, { ...count }]));
  for (const [file, source] of SOURCES) {
    const here = by.get(file.split(path.sep)[0]!)!;
    const lineOf = (at: number) => source.getLineAndCharacterOfPosition(at).line;
    here.lines += lineOf(source.getEnd()) + 1;
    // Words have files of their own, names of fields stand beside those, and marks of a picture's parts are no words.
    if (!/words|labels|\/command\.ts$|core\/specimens/.test(file))
      here.texts += textsOf(file).filter(({ namesField }) => !namesField).length;
    const visit = (node: ts.Node): void => {
      if (ts.isNonNullExpression(node) && ts.isElementAccessExpression(node.expression)) here.unchecked += 1;
      if (isVague(node)) here.vagueNames += 1;
      if (ts.isFunctionLike(node) && 'body' in node && node.body) {
        const length = lineOf(node.getEnd()) - lineOf(node.getStart(source)) + 1;
        if (length > 60) here.longFunctions += 1;
        here.longest = Math.max(here.longest, length);
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
  }
  return Object.fromEntries([...by].map(([folder, { lines: _, ...rest }]) => [folder, rest]));
}

test('what only falls: `[k]!`, functions over 60 lines, texts outside files of words, vague names', () => {
  const file = path.join(__dirname, 'test', 'budgets.json');
  const now = counted();
  if (process.env['EMERY_WRITE_ANSWERS'] === '1') writeFileSync(file, `${JSON.stringify(now, null, 2)}\n`);
  expect(existsSync(file)).toBe(true);
  expect(now).toEqual(JSON.parse(readFileSync(file, 'utf8')));
});
