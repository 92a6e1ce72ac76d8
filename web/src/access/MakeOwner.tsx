import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import type { Access } from './access-context.ts';
import { Line, Sheet } from './Sheet.tsx';

/** What the server calls a lab that nobody has named. */
const NO_NAME = 'Your lab';

/** The first start: whoever is here first becomes the owner, also of records that were brought here without their people. */
export function MakeOwner({ known, onMade }: { known: string; onMade: (access: Access) => void }) {
  const brought = known !== NO_NAME;
  const [lab, setLab] = useState(brought ? known : '');
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const make = useMutation({
    mutationFn: () => value(api.POST('/api/access/owner', { body: { lab, name, password } })),
    onSuccess: onMade,
  });
  return (
    <Sheet title={brought ? `${known} is here, and yours` : 'Your shelf is empty and yours'}>
      <p className="mt-1 text-ink-2">This is the first start. Say who you are; you will be the owner of this shelf.</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <Line label="Name of your lab" name="lab" value={lab} onChange={setLab} autoComplete="organization" autoFocus />
        <Line label="Your name" name="name" value={name} onChange={setName} autoComplete="username" />
        <Line
          label="Password"
          type="password"
          name="password"
          value={password}
          onChange={setPassword}
          autoComplete="new-password"
          hint="Ten characters or more."
        />
        <p role="alert" className="mt-3 min-h-6 text-plum">
          {make.error?.message}
        </p>
        <button className="button button-main w-full py-2.5 text-[15px]" disabled={make.isPending}>
          Open the shelf
        </button>
      </form>
    </Sheet>
  );
}
