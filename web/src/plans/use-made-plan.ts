import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, value, type Schemas } from '../api/client.ts';

const TIMED_MS = 3000;
const PAUSE_MS = 5000;
const LONGEST_NAME = 120;

/** Makes a plan with exactly what a view found missing. A plan's name is its own, so the time of day tells two apart. */
export function useMadePlan(about: string, runs: number, items: Schemas['PlanItem'][], days?: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => {
      const at = new Date();
      const name = `${about} ${at.toISOString().slice(0, 10)} ${at.toTimeString().slice(0, 8)}`.slice(0, LONGEST_NAME);
      return value(
        api.POST('/api/plans', {
          body: {
            name,
            runs,
            timedMs: TIMED_MS,
            pauseMs: PAUSE_MS,
            stopOnFailure: false,
            items,
            ...(days !== undefined && { days }),
          },
        }),
      );
    },
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['plans'] }),
  });
}
