/** So many lines of what a test said of its failure are repeated. */
const LINES = 12;

/**
 * What failed by Jest's report (`--json`): where, under which names, and the first lines of what was said. A suite that
 * could not be loaded has no tests and is named by its file.
 */
export function failuresOfJest({ testResults }) {
  return testResults.flatMap(({ name, message, assertionResults }) => {
    const failed = assertionResults.filter(({ status }) => status === 'failed');
    if (failed.length > 0)
      return failed.map(({ ancestorTitles, title, failureMessages }) =>
        failure([name, ...ancestorTitles, title], failureMessages.join('\n')),
      );
    return assertionResults.length === 0 && message ? [failure([name], message)] : [];
  });
}

/** What failed by Playwright's report, likewise; what passed only when tried again is not sound either. */
export function failuresOfPlaywright({ suites = [], errors = [] }) {
  return [...suites.flatMap((suite) => inSuite(suite, [])), ...errors.map(({ message }) => failure([], message ?? ''))];
}

function inSuite({ title, specs = [], suites = [] }, above) {
  const names = [...above, title];
  return [
    ...specs.flatMap((spec) =>
      spec.tests
        .filter(({ status }) => status === 'unexpected' || status === 'flaky')
        .map(({ results }) =>
          failure(
            [...names, spec.title],
            results
              .flatMap(({ errors = [] }) => errors)
              .map(({ message }) => message)
              .join('\n'),
          ),
        ),
    ),
    ...suites.flatMap((suite) => inSuite(suite, names)),
  ];
}

/** One failure in words: under which names, and the first lines of what was said. */
export function failure(names, said) {
  const lines = said
    // eslint-disable-next-line no-control-regex -- the colours of a terminal
    .replace(/\u001b\[[0-9;]*m/g, '')
    .split('\n')
    .filter((line) => line.trim() !== '');
  return [names.join(' › '), ...lines.slice(0, LINES).map((line) => `    ${line}`)].join('\n');
}
