import { useState } from 'react';
import { Choice } from '../../ui/Choice.tsx';
import { useVocabulary } from './FactEditor.tsx';

export type Relation = 'KNOWN' | 'IS' | 'AT_LEAST' | 'AT_MOST';
const WORDS: Record<Relation, string> = { KNOWN: 'known', IS: 'being', AT_LEAST: 'at least', AT_MOST: 'at most' };

interface Said {
  fact?: string | undefined;
  relation?: Relation | undefined;
  value?: string | undefined;
}

/** A part of the sentence: "with a memory size at least 16 GB". */
export function FactCondition({
  fact,
  relation = 'KNOWN',
  value,
  onChange,
}: Said & { onChange: (said: Said) => void }) {
  const vocabulary = useVocabulary();
  const [typed, setTyped] = useState(value ?? '');
  const [shown, setShown] = useState(value);
  if (shown !== value) {
    setShown(value);
    setTyped(value ?? '');
  }
  const entry = vocabulary.data?.find((v) => v.key === fact);
  const number = entry?.type === 'INTEGER' || entry?.type === 'DECIMAL';
  const relations: Relation[] = number ? ['AT_LEAST', 'AT_MOST', 'IS', 'KNOWN'] : ['IS', 'KNOWN'];
  return (
    <>
      <Choice
        name="Fact"
        value={fact}
        options={[
          { value: undefined, label: 'any facts' },
          ...(vocabulary.data ?? []).map((v) => ({ value: v.key, label: v.label.toLowerCase(), detail: v.group })),
        ]}
        onChoose={(next) => onChange({ fact: next, relation: undefined, value: undefined })}
      >
        {entry ? entry.label.toLowerCase() : 'any facts'}
      </Choice>
      {entry && (
        <>
          {' '}
          <Choice
            name="How"
            value={relation}
            options={relations.map((r) => ({ value: r, label: WORDS[r] }))}
            onChoose={(next) => onChange({ fact, relation: next, value: next === 'KNOWN' ? undefined : value })}
          >
            {WORDS[relation]}
          </Choice>
          {relation !== 'KNOWN' && (
            <>
              {' '}
              <input
                className="field w-28 py-0"
                aria-label={`Value of ${entry.label}`}
                placeholder={entry.example}
                maxLength={120}
                autoFocus={!value}
                value={typed}
                onChange={(e) => setTyped(e.target.value)}
                onBlur={() => typed !== (value ?? '') && onChange({ fact, relation, value: typed || undefined })}
                onKeyDown={(e) => {
                  if (e.key === 'Enter') onChange({ fact, relation, value: typed || undefined });
                }}
              />
            </>
          )}
        </>
      )}
    </>
  );
}
