import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { value } from '../api/client.ts';
import { Opening } from '../shell/Opening.tsx';
import { Empty, Ready } from '../ui/states.tsx';
import { grouped, isAbout, jsonOf, kindsOf, partsOf, typeWords, type ApiDocument, type Request } from './api-shape.ts';

function theDocument(): Promise<ApiDocument> {
  return value(
    fetch('/v3/api-docs').then(async (response) => {
      const body: unknown = await response.json();
      return response.ok ? { data: body as ApiDocument, response } : { error: body, response };
    }),
  );
}

/** The interface for programs, as the server describes it, to be read and searched. */
export function InterfaceView() {
  const document = useQuery({ queryKey: ['api-document'], queryFn: theDocument, staleTime: Infinity });
  const [words, setWords] = useState('');
  const wanted = useDeferredValue(words.trim());
  return (
    <>
      <Opening
        title="Interface for programs"
        sentence={
          <>
            Whatever the screens do goes through these requests, and a program with a key can ask them too. Send it as{' '}
            <code>Authorization: Bearer …</code>. Errors have a status, a <code>code</code> and a <code>detail</code> in
            words.
          </>
        }
      >
        <a href="/v3/api-docs" download="yarrowmark-api.json" className="button">
          As OpenAPI 3.1
        </a>
      </Opening>
      <input
        type="search"
        className="field mb-4 max-w-sm"
        aria-label="Find a request"
        placeholder="Find a request: csv, standings, key …"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      <Ready query={document} what="the description">
        {(found) => <Groups document={found} wanted={wanted} />}
      </Ready>
    </>
  );
}

function Groups({ document, wanted }: { document: ApiDocument; wanted: string }) {
  const groups = grouped(document)
    .map((g) => ({ ...g, requests: g.requests.filter((r) => isAbout(r, wanted)) }))
    .filter((g) => g.requests.length > 0);
  if (groups.length === 0) return <Empty title="No request is about that">Other words may find it.</Empty>;
  return groups.map((group) => (
    <section key={group.name} className="mb-6">
      <h2 className="border-b border-hair pb-0.5">{group.name}</h2>
      {group.requests.map((request) => (
        <One key={request.method + request.path} document={document} request={request} />
      ))}
    </section>
  ));
}

function One({ document, request: { method, path, operation } }: { document: ApiDocument; request: Request }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="border-b border-hair-2 py-1" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer py-0.5">
        <code className="inline-block w-16 text-ink-2">{method}</code>
        <code className="break-all font-semibold">{path}</code>{' '}
        <span className="small sm:ml-2">{operation.summary}</span>
      </summary>
      {open && (
        <div className="py-2 pl-16 max-sm:pl-0">
          {operation.parameters && operation.parameters.length > 0 && (
            <Fields
              title="In the address"
              rows={operation.parameters.map((p) => ({
                name: p.name,
                type: typeWords(p.schema),
                always: p.required === true,
              }))}
            />
          )}
          <Body title="Sent" document={document} content={operation.requestBody} />
          {Object.entries(operation.responses ?? {}).map(([status, answer]) => (
            <Body key={status} title={`Answer, ${status}`} document={document} content={answer} />
          ))}
        </div>
      )}
    </details>
  );
}

function Body(props: { title: string; document: ApiDocument; content: Request['operation']['requestBody'] }) {
  const shape = jsonOf(props.content);
  const others = kindsOf(props.content).filter((kind) => kind !== 'application/json');
  if (!shape && others.length === 0) return null;
  return (
    <>
      <p className="mt-2">
        <b className="font-semibold">{props.title}:</b> {shape ? typeWords(shape) : others.join(', ')}
      </p>
      {partsOf(props.document, shape).map((part) => (
        <Fields
          key={part.name}
          title={part.name}
          rows={
            part.shape.properties
              ? Object.entries(part.shape.properties).map(([name, field]) => ({
                  name,
                  type: typeWords(field),
                  always: part.shape.required?.includes(name) ?? false,
                }))
              : [{ name: 'one of', type: typeWords(part.shape), always: true }]
          }
        />
      ))}
    </>
  );
}

function Fields({ title, rows }: { title: string; rows: readonly { name: string; type: string; always: boolean }[] }) {
  return (
    <table className="data mt-2 w-full max-w-2xl">
      <caption className="small text-left">{title}</caption>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <th scope="row" className="w-56 text-left font-normal">
              <code>{row.name}</code>
            </th>
            <td className="small break-words">{row.type}</td>
            <td className="small w-20 text-right">{row.always ? '' : 'may miss'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
