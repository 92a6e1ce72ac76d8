import { Drawing } from './Drawing.tsx';

/** The lab's mark, beside its name: a drawing, or a picture that is whole in itself. */
export function Mark({ mark }: { mark: string }) {
  return mark.startsWith('data:') ? <img src={mark} alt="" className="h-full w-full" /> : <Drawing svg={mark} alt="" />;
}
