import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useContext } from 'react';
import { api, value } from '../../api/client.ts';
import { named } from '../../format/named.ts';
import { Choice, Choices } from '../../ui/Choice.tsx';
import { searchOf } from '../../standings/question/ask.ts';
import { askOf, compareSearchOf, trendSearchOf, type AskedStanding } from '../question/asked.ts';
import { Offered } from './NumberPicker.tsx';
import { configurationsOf, type FigureQuestion } from '../question/questions.ts';
import { onOneScale } from '../figure/bar-groups.ts';
import { FactorsForm } from './FactorsForm.tsx';
import { beginFigure, FIGURE_FORMS, shows } from '../figure/kinds.ts';
import { useConfigurations } from '../figure/use-answers.ts';

/** More bars for each device could not be told apart. */
const MOST_BESIDE = 3;
const CLASSES = [
  { value: undefined, label: 'all classes' },
  ...(['DESKTOP', 'MINI', 'LAPTOP', 'TABLET', 'PHONE', 'BOARD'] as const).map((c) => ({
    value: c,
    label: `${c.toLowerCase()}s`,
  })),
];

/** The class that is ranked, where it is one. */
function classOf(of: AskedStanding) {
  const asked = askOf(of).deviceClass ?? [];
  return asked.length === 1 ? asked[0] : undefined;
}

function classWords(of: AskedStanding): string {
  const asked = askOf(of).deviceClass ?? [];
  return asked.length > 0
    ? asked.map((c) => CLASSES.find((o) => o.value === c)!.label).join(' and ')
    : CLASSES[0]!.label;
}

/** What a figure asks, as a sentence whose parts are chosen where it stands. */
export function FigureForm({
  question,
  onChange,
}: {
  question: FigureQuestion;
  onChange: (q: FigureQuestion) => void;
}) {
  const offered = useContext(Offered);
  const mine = configurationsOf(question);
  const ids = [...new Set([...mine, ...offered])];
  const { pages } = useConfigurations(ids);
  const who = pages.map((p) => ({ value: p.configuration.id, label: named(p.configuration) }));
  const call = (id: number | undefined) =>
    who.find((w) => w.value === id)?.label ?? (id === undefined ? 'nobody' : 'one that is gone');
  const tests = useQuery({
    queryKey: ['values', ids, []],
    queryFn: () => value(api.GET('/api/compare/values', { params: { query: { ids } } })),
    enabled: ids.length > 0,
    staleTime: 60_000,
  });
  const all = tests.data?.metrics ?? [];
  const offer = (some: typeof all) =>
    some.map((m) => ({
      value: m.id,
      label: m.main ? m.test : `${m.test}, ${m.name}`,
      detail: `${m.suite} ${m.version}`,
    }));
  const metrics = offer(all.filter((m) => shows(question.of, m)));
  const own = 'metric' in question ? all.find((m) => m.id === question.metric) : undefined;
  const trend = useQuery({
    queryKey: ['trends', 'offered', question.of === 'trend' ? question.model : 0],
    queryFn: () =>
      value(api.GET('/api/trends', { params: { query: { model: question.of === 'trend' ? question.model : 0 } } })),
    enabled: question.of === 'trend' && question.model > 0,
    retry: false,
    staleTime: 60_000,
  });
  const quantities = useQuery({
    queryKey: ['standings', 'quantities'],
    queryFn: () => value(api.GET('/api/standings/quantities')),
    staleTime: 60_000,
  });
  const along = (trend.data?.offered ?? []).map((o) => ({
    value: o.key,
    label: o.label.toLowerCase(),
  }));
  const models = [
    ...new Map(pages.map((p) => [p.configuration.modelId, `${p.configuration.maker} ${p.configuration.model}`])),
    ...(trend.data ? [[trend.data.modelId, `${trend.data.maker} ${trend.data.model}`] as const] : []),
  ]
    .filter(([id], i, all) => all.findIndex(([other]) => other === id) === i)
    .map(([value, label]) => ({ value, label }));
  const begin = (of: FigureQuestion['of']) =>
    onChange(
      beginFigure(of, {
        configurations: ids,
        first: pages[0]?.configuration,
        metrics: all,
        quantity: quantities.data?.[0]?.key,
      }),
    );
  return (
    <span>
      Shows{' '}
      <Choice name="Kind of figure" value={question.of} options={FIGURE_FORMS} onChoose={begin}>
        {FIGURE_FORMS.find((f) => f.value === question.of)!.label}
      </Choice>
      {(question.of === 'bars' || question.of === 'curves' || question.of === 'frames') && (
        <>
          :{' '}
          {tests.data && metrics.length === 0 ? (
            <span className="text-plum">no device here has {question.of === 'curves' ? 'a curve' : 'frame times'}</span>
          ) : (
            <Choice
              name="Test"
              value={question.metric}
              options={metrics}
              onChoose={(metric) => onChange({ ...question, metric })}
            >
              {metrics.find((m) => m.value === question.metric)?.label ?? 'a test'}
            </Choice>
          )}{' '}
        </>
      )}
      {question.of === 'bars' && own && (
        <>
          <Choices
            name="Beside it"
            values={question.beside ?? []}
            options={offer(all.filter((m) => m.id !== own.id && m.kind !== 'CURVE' && onOneScale(m, own))).slice(0, 60)}
            onChoose={(beside) => onChange({ ...question, beside: beside.slice(0, MOST_BESIDE) })}
          >
            {question.beside && question.beside.length > 0 ? `and ${question.beside.length} beside it` : 'alone'}
          </Choices>{' '}
        </>
      )}
      {(question.of === 'bars' ||
        question.of === 'curves' ||
        question.of === 'frames' ||
        question.of === 'factors') && (
        <>
          {question.of === 'factors' && ' '}of{' '}
          <Choices
            name="Devices"
            values={question.configurations}
            options={who}
            onChoose={(configurations) => onChange({ ...question, configurations })}
          >
            {`${question.configurations.length} ${question.configurations.length === 1 ? 'configuration' : 'configurations'}`}
          </Choices>
        </>
      )}
      {(question.of === 'curves' || question.of === 'frames') && ', with '}
      {question.of === 'factors' && <FactorsForm question={question} onChange={onChange} />}
      {question.of === 'bars' && (
        <>
          ,{' '}
          <Choice
            name="Order"
            value={question.order ?? 'best'}
            options={[
              { value: 'best' as const, label: 'best first' },
              { value: 'given' as const, label: 'as they were chosen' },
            ]}
            onChoose={(order) => onChange({ ...question, order })}
          >
            {question.order === 'given' ? 'as they were chosen' : 'best first'}
          </Choice>
          , with{' '}
        </>
      )}
      {question.of === 'ratios' && (
        <>
          :{' '}
          <Choice
            name="Who is compared"
            value={question.configuration}
            options={who}
            onChoose={(configuration) => onChange({ ...question, configuration })}
          >
            {call(question.configuration)}
          </Choice>{' '}
          against{' '}
          <Choice name="Base" value={question.base} options={who} onChoose={(base) => onChange({ ...question, base })}>
            {call(question.base)}
          </Choice>
          {question.by && (
            <>
              {' as asked in '}
              <Link to="/compare" search={compareSearchOf(question)} className="link">
                Compare
              </Link>
            </>
          )}
          .
        </>
      )}
      {question.of === 'card' && (
        <>
          {' of '}
          <Choice
            name="Whose card"
            value={question.configuration}
            options={who}
            onChoose={(configuration) => onChange({ ...question, configuration })}
          >
            {call(question.configuration)}
          </Choice>{' '}
          among{' '}
          <Choice
            name="Class"
            value={classOf(question)}
            options={CLASSES}
            onChoose={(deviceClass) =>
              onChange({ ...question, asked: { ...question.asked, deviceClass: deviceClass && [deviceClass] } })
            }
          >
            {classWords(question)}
          </Choice>
          , beside{' '}
          <Choice
            name="Held against"
            value={question.base}
            options={[{ value: undefined, label: 'nobody' }, ...who.filter((w) => w.value !== question.configuration)]}
            onChoose={(base) => onChange({ ...question, base })}
          >
            {call(question.base)}
          </Choice>
          .
        </>
      )}
      {question.of === 'value' && (
        <>
          {' against '}
          <Choice
            name="Quantity"
            value={question.quantity}
            options={(quantities.data ?? []).map((q) => ({ value: q.key, label: q.label.toLowerCase() }))}
            onChoose={(quantity) => onChange({ ...question, quantity })}
          >
            {quantities.data?.find((q) => q.key === question.quantity)?.label.toLowerCase() ?? question.quantity}
          </Choice>
        </>
      )}
      {(question.of === 'standing' || question.of === 'value' || question.of === 'charts') && (
        <>
          {' of '}
          <Choice
            name="Class"
            value={classOf(question)}
            options={CLASSES}
            onChoose={(deviceClass) =>
              onChange(
                question.of === 'charts' || question.asked
                  ? { ...question, asked: { ...question.asked, deviceClass: deviceClass && [deviceClass] } }
                  : { ...question, deviceClass },
              )
            }
          >
            {classWords(question)}
          </Choice>
          {question.asked && (
            <>
              {' as asked in '}
              <Link to="/standings" search={searchOf(question.asked)} className="link">
                Standings
              </Link>
            </>
          )}
          , with{' '}
        </>
      )}
      {question.of === 'trend' && (
        <>
          {' of '}
          <Choice
            name="Model"
            value={question.model}
            options={models}
            onChoose={(model) => onChange({ of: 'trend', model })}
          >
            {models.find((m) => m.value === question.model)?.label ?? 'a model'}
          </Choice>{' '}
          along{' '}
          <Choice
            name="Along"
            value={question.along}
            options={[{ value: undefined, label: 'what it has most of' }, ...along]}
            onChoose={(next) => onChange({ ...question, along: next })}
          >
            {along.find((o) => o.value === question.along)?.label ?? 'what it has most of'}
          </Choice>
          {question.by && (
            <>
              {' as asked in '}
              <Link to="/trends" search={trendSearchOf(question)} className="link">
                Trends
              </Link>
            </>
          )}
          .
        </>
      )}
      {question.of !== 'ratios' && question.of !== 'card' && question.of !== 'trend' && question.of !== 'factors' && (
        <>
          <Choice
            name="Highlighted"
            value={question.highlight}
            options={[{ value: undefined, label: 'nobody' }, ...who]}
            onChoose={(highlight) => onChange({ ...question, highlight })}
          >
            {call(question.highlight)}
          </Choice>{' '}
          highlighted.
        </>
      )}
    </span>
  );
}
