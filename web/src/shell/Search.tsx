import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { useState, type KeyboardEvent } from 'react';
import { api, value } from '../api/client.ts';
import { Panel } from '../ui/Panel.tsx';
import { Failed } from '../ui/states.tsx';

interface Hit {
  kind: string;
  label: string;
  detail: string;
  go: () => void;
}

/** Go to anything by a part of its name: views, models, configurations, tests. */
export function Search({
  open,
  onClose,
  views,
}: {
  open: boolean;
  onClose: () => void;
  views: readonly { to: string; name: string }[];
}) {
  return (
    <Panel open={open} onClose={onClose} title="Go to">
      {open && <Results onClose={onClose} views={views} />}
    </Panel>
  );
}

function Results({ onClose, views }: { onClose: () => void; views: readonly { to: string; name: string }[] }) {
  const navigate = useNavigate();
  const [words, setWords] = useState('');
  const [active, setActive] = useState(0);
  const found = useQuery({
    queryKey: ['search', words],
    queryFn: ({ signal }) => value(api.GET('/api/search', { params: { query: { q: words } }, signal })),
    enabled: words.trim() !== '',
    placeholderData: keepPreviousData,
  });
  const written = useQuery({
    queryKey: ['write-ups', 'search', words],
    queryFn: ({ signal }) =>
      value(api.GET('/api/write-ups', { params: { query: { words: words.trim(), size: 8 } }, signal })),
    enabled: words.trim() !== '',
    placeholderData: keepPreviousData,
  });
  const wanted = words.trim().toLowerCase();
  const hits: Hit[] = [
    ...views
      .filter((v) => v.name.toLowerCase().includes(wanted))
      .map((v) => ({ kind: 'view', label: v.name, detail: '', go: () => void navigate({ to: v.to }) })),
    ...(wanted && found.data
      ? [
          ...found.data.models.map((m) => ({
            kind: 'model',
            label: `${m.maker} ${m.name}`,
            detail: m.deviceClass.toLowerCase(),
            go: () => void navigate({ to: '/shelf/models/$modelId', params: { modelId: String(m.id) } }),
          })),
          ...found.data.configurations.map((c) => ({
            kind: 'configuration',
            label: `${c.maker} ${c.model}`,
            detail: c.name,
            go: () =>
              void navigate({
                to: '/shelf/configurations/$configurationId',
                params: { configurationId: String(c.id) },
              }),
          })),
          ...(written.data?.rows ?? []).map((w) => ({
            kind: 'write-up',
            label: w.title,
            detail: w.about.map((a) => a.name).join(', '),
            go: () => void navigate({ to: '/write-ups/$writeUpId', params: { writeUpId: String(w.id) } }),
          })),
          ...found.data.tests.map((t) => ({
            kind: 'test',
            label: t.name,
            detail: `${t.suite} ${t.version}: its standings`,
            go: () => void navigate({ to: '/standings', search: { metric: t.metrics[0]!.id } }),
          })),
        ]
      : []),
  ];

  function keys(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') setActive(Math.min(hits.length - 1, active + 1));
    else if (event.key === 'ArrowUp') setActive(Math.max(0, active - 1));
    else if (event.key === 'Enter' && hits[active]) open(hits[active]);
    else return;
    event.preventDefault();
  }
  function open(hit: Hit) {
    onClose();
    hit.go();
  }

  return (
    <>
      <input
        className="field mt-2 text-[17px]"
        placeholder="A model, a configuration, a test, a view"
        aria-label="Search"
        role="combobox"
        aria-expanded="true"
        aria-controls="search-hits"
        aria-activedescendant={`hit-${active}`}
        autoFocus
        maxLength={120}
        value={words}
        onKeyDown={keys}
        onChange={(event) => {
          setWords(event.target.value);
          setActive(0);
        }}
      />
      <ul id="search-hits" role="listbox" aria-label="Found" className="mt-2">
        {hits.map((hit, i) => (
          <li
            key={`${hit.kind}-${hit.label}-${hit.detail}`}
            id={`hit-${i}`}
            role="option"
            aria-selected={i === active}
            className="menu-item"
            onPointerMove={() => setActive(i)}
            onClick={() => open(hit)}
          >
            <span>{hit.label}</span> <span className="small truncate">{hit.detail}</span>{' '}
            <span className="small ml-auto text-ink-3">{hit.kind}</span>
          </li>
        ))}
      </ul>
      <Failed of={found} className="mt-2" />
      {wanted && found.isSuccess && hits.length === 0 && (
        <p className="small mt-2">Nothing has these words in its name.</p>
      )}
    </>
  );
}
