import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { expect, test } from 'vitest';

const SRC = join(import.meta.dirname, '..');
const RULES = join(SRC, '../../server/src/test/resources/yarrowmark/server/access/who-may.txt');

/** Whatever sends a change that a reader is refused knows of readers, itself or in the part that opens it. */
const OPENED_BY: Readonly<Record<string, string>> = {
  'bench/Invite.tsx': 'bench/Invite.tsx',
  'ledger/BulkAside.tsx': 'ledger/LedgerView.tsx',
  'ledger/spreadsheet/LedgerRows.tsx': 'ledger/LedgerView.tsx',
  'ledger/spreadsheet/SpreadsheetView.tsx': 'ledger/LedgerView.tsx',
  'ledger/spreadsheet/use-import.ts': 'ledger/LedgerView.tsx',
  'people/PeopleView.tsx': 'people/PeopleView.tsx',
  'plans/use-made-plan.ts': 'plans/PlansView.tsx',
  'sheet/useTyped.ts': 'sheet/SheetView.tsx',
  'sheet/LookPart.tsx': 'sheet/NewSessionView.tsx',
  'shelf/configuration/ConfigureView.tsx': 'shelf/fact/FactEditor.tsx',
  'shelf/configuration/EditingFacts.tsx': 'shelf/configuration/ConfigurationView.tsx',
  'shelf/fact/CorrectionForm.tsx': 'shelf/configuration/ConfigurationView.tsx',
  'shelf/model/ModelForm.tsx': 'shelf/ShelfView.tsx',
  'standings/question/PurposeEditor.tsx': 'standings/StandingsView.tsx',
  'suites/CommandSuite.tsx': 'suites/SuitesView.tsx',
  'suites/ComputedForm.tsx': 'suites/SuiteView.tsx',
  'suites/NewSuite.tsx': 'suites/SuitesView.tsx',
  'suites/RuleForm.tsx': 'suites/SuiteView.tsx',
  'suites/ToolSuite.tsx': 'suites/SuitesView.tsx',
  'suites/TotalForm.tsx': 'suites/SuiteView.tsx',
  'writeup/question/begin.ts': 'writeup/question/WriteUpButton.tsx',
  'writeup/DraftPanel.tsx': 'writeup/WriteUpView.tsx',
  'writeup/KindsPanel.tsx': 'writeup/WriteUpsView.tsx',
  'writeup/LookPanel.tsx': 'writeup/WriteUpsView.tsx',
  'writeup/PublishPanel.tsx': 'writeup/WriteUpView.tsx',
  'writeup/text/writing.ts': 'writeup/WriteUpView.tsx',
};

function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return sources(path);
    return /\.tsx?$/.test(entry.name) && !/\.(test|d)\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

test('no reader sees what would be refused to them', () => {
  const refused = new Set(
    readFileSync(RULES, 'utf8')
      .split('\n')
      .map((line) => /^(POST|PUT|DELETE|PATCH)\s+(\S+)\s+(REVIEWER|OWNER|DELIVERS)$/.exec(line.trim()))
      .flatMap((rule) => (rule ? [`${rule[1]} ${rule[2]}`] : [])),
  );
  expect(refused.size).toBeGreaterThan(50);
  const knows = (name: string) =>
    /data-changes|<FormSheet|useReader|'READER'|owner &&/.test(readFileSync(join(SRC, name), 'utf8'));
  const unaware = sources(SRC).flatMap((path) => {
    const text = readFileSync(path, 'utf8');
    const sends = [...text.matchAll(/api\s*\.(POST|PUT|DELETE|PATCH)\('([^']+)'/g)].some((call) =>
      refused.has(`${call[1]} ${call[2]}`),
    );
    const name = relative(SRC, path);
    return sends && !knows(name) && !(OPENED_BY[name] && knows(OPENED_BY[name])) ? [name] : [];
  });
  expect(unaware).toEqual([]);
  expect(Object.keys(OPENED_BY).filter((name) => !sources(SRC).some((path) => relative(SRC, path) === name))).toEqual(
    [],
  );
});
