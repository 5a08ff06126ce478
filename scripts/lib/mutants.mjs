import ts from 'typescript';

/*
 * Places of a source where one small change could be made, each as the text it stands on and the text that would stand
 * there instead. Types, imports and names of properties are let be: a change there changes nothing that runs.
 */

const EXCHANGED = {
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '===': '!==',
  '!==': '===',
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '%': '*',
  '&&': '||',
  '||': '&&',
};
const CALLS = { min: 'max', max: 'min', floor: 'ceil', ceil: 'floor', some: 'every', every: 'some' };

/**
 * The places of one file, in its order: `{ from, to, line, kind, mutated }`, where `kind` is `expression`, `statement`
 * or `attribute`, and `mutated` the text instead of what stands from `from` to `to`.
 *
 * @param pick a whole number from 0 to below its argument, the same for the same file at every run
 */
export function placesOf(name, text, pick) {
  const source = ts.createSourceFile(
    name,
    text,
    ts.ScriptTarget.Latest,
    true,
    name.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const words = wordsOf(source);
  const places = [];
  const add = (node, mutated, kind = 'expression') =>
    places.push({
      from: node.getStart(source),
      to: node.end,
      line: source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
      kind,
      mutated,
    });
  const textOf = (node) => node.getText(source);

  const visit = (node) => {
    if (
      ts.isTypeNode(node) ||
      ts.isImportDeclaration(node) ||
      ts.isExportDeclaration(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node) ||
      ts.isEnumDeclaration(node)
    )
      return;
    if (ts.isBinaryExpression(node)) {
      const operator = textOf(node.operatorToken);
      const [left, right] = [textOf(node.left), textOf(node.right)];
      if (operator === '??') add(node, right);
      else if (Object.hasOwn(EXCHANGED, operator)) add(node, `${left} ${EXCHANGED[operator]} ${right}`);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, textOf(node.operand));
    else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.MinusToken)
      add(node, textOf(node.operand));
    else if (ts.isNumericLiteral(node) && !isName(node)) add(node, otherNumber(Number(node.text)));
    else if (ts.isStringLiteral(node) && !isName(node) && !ts.isExpressionStatement(node.parent)) {
      const others = words.filter((word) => word !== node.text);
      const instead = JSON.stringify(others.length > 0 ? others[pick(others.length)] : `${node.text}?`);
      add(node, instead, ts.isJsxAttribute(node.parent) ? 'attribute' : 'expression');
    } else if (ts.isTemplateExpression(node) && !ts.isTaggedTemplateExpression(node.parent))
      add(node, `[${node.templateSpans.map(({ expression }) => textOf(expression)).join(', ')}].join('')`);
    else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true');
    else if (ts.isConditionalExpression(node))
      add(node, `${textOf(node.condition)} ? ${textOf(node.whenFalse)} : ${textOf(node.whenTrue)}`);
    else if (ts.isIfStatement(node)) add(node.expression, 'false');
    else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression) && !isSuper(node.expression))
      add(node, '', 'statement');
    else if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression) && !node.questionDotToken) {
      const { expression, name: called } = node.expression;
      const given = node.arguments.map(textOf).join(', ');
      if (Object.hasOwn(CALLS, called.text)) add(node, `${textOf(expression)}.${CALLS[called.text]}(${given})`);
      else if (called.text === 'filter' || called.text === 'sort' || called.text === 'trim')
        add(node, textOf(expression));
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return places.filter(({ from, to, mutated }) => text.slice(from, to) !== mutated);
}

/** The text with each chosen place asking at run time whether its change is the one to be made. */
export function withMutants(text, chosen) {
  let result = text;
  for (const { number, from, to, kind, mutated } of [...chosen].sort((a, b) => b.from - a.from)) {
    const original = result.slice(from, to);
    const asked = `globalThis.emeryMutant?.(${number})`;
    const switched =
      kind === 'statement'
        ? `if (!${asked}) {${original}}`
        : kind === 'attribute'
          ? `{${asked} ? ${mutated} : ${original}}`
          : `(${asked} ? (${mutated}) : (${original}))`;
    result = result.slice(0, from) + switched + result.slice(to);
  }
  return result;
}

/** True where a literal is a name: of a property, or of what is imported. */
function isName(node) {
  const { parent } = node;
  return (
    (parent.name === node && !ts.isVariableDeclaration(parent)) ||
    ts.isLiteralTypeNode(parent) ||
    ts.isImportSpecifier(parent) ||
    (ts.isCallExpression(parent) && parent.expression.kind === ts.SyntaxKind.ImportKeyword)
  );
}

function isSuper(call) {
  return call.expression.kind === ts.SyntaxKind.SuperKeyword;
}

/** The next whole number for a small one, a tenth more for any other. */
function otherNumber(value) {
  return String(Number.isInteger(value) && Math.abs(value) < 10 ? value + 1 : value * 1.1);
}

/** What else stands in quotes in this file. */
function wordsOf(source) {
  const words = new Set();
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isStringLiteral(node) && !isName(node)) words.add(node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return [...words];
}
