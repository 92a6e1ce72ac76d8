import { useEffect, useState } from 'react';
import { freeBytes } from '../../workloads/storage/consent.ts';
import { MIB, needs, room, STORAGE_TESTS } from '../../workloads/storage/plan.ts';
import type { DeviceTest } from '../seat/api.ts';

interface SpaceQuestionProps {
  tests: readonly DeviceTest[];
  allowed: boolean;
  onAllowed: (yes: boolean) => void;
}

/** Asks before the storage tests take more than a tenth of what the browser would store for this page. */
export function SpaceQuestion({ tests, allowed, onAllowed }: SpaceQuestionProps) {
  const bytes = Math.max(
    0,
    ...STORAGE_TESTS.filter((t) => tests.some((test) => test.key === `storage-${t}`)).map(needs),
  );
  const [free, setFree] = useState<number | null>(null);
  useEffect(() => void freeBytes().then(setFree), []);
  if (bytes === 0 || free === null || room(bytes, free) !== 'ask') return null;
  return (
    <label className="mt-4 flex gap-3 border-l-2 border-plum pl-3">
      <input
        type="checkbox"
        className="mt-1 size-5 shrink-0"
        checked={allowed}
        onChange={(e) => onAllowed(e.target.checked)}
      />
      <span>
        Let the storage tests take {Math.ceil(bytes / MIB)} MiB of space for a while. This browser would store{' '}
        {(free / MIB).toFixed(0)} MiB for this page, so that is more than a tenth. They give it back. Without it these
        tests are left out.
      </span>
    </label>
  );
}
