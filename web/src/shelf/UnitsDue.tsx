import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { day } from '../format/format.ts';
import { dueWords } from './model/due.ts';

const WITHIN_DAYS = 14;

export const useUnitsDue = () =>
  useQuery({
    queryKey: ['units', 'due'],
    queryFn: () => value(api.GET('/api/units/due', { params: { query: { days: WITHIN_DAYS } } })),
  });

/** Units that must go back soon: the dull thing that must not be forgotten. */
export function UnitsDue({ className = '' }: { className?: string }) {
  const due = useUnitsDue();
  if (!due.data || due.data.length === 0) return null;
  return (
    <ul className={className} aria-label="Units that must go back soon">
      {due.data.map((u) => {
        const { words, late } = dueWords(u.dueBack);
        return (
          <li key={u.unitId} className="border-l-2 border-gold py-0.5 pl-3">
            <Link to="/shelf/models/$modelId" params={{ modelId: String(u.modelId) }} className="link">
              {u.maker} {u.model}, {u.label}
            </Link>{' '}
            <span className={late ? 'font-semibold text-plum' : 'text-gold-ink'}>{words}</span>, {day(u.dueBack)}
          </li>
        );
      })}
    </ul>
  );
}
