import { pastedFile } from '../../shell/dropped-file.ts';

/** Takes a file that is chosen, dropped or pasted. */
export function ChooseFile({ onChoose, small = false }: { onChoose: (file: File) => void; small?: boolean }) {
  const field = (
    <input
      type="file"
      accept=".xlsx,.ods,.csv,.tsv,.txt,text/csv,text/tab-separated-values"
      className="sr-only"
      onChange={(e) => {
        const file = e.target.files?.[0];
        if (file) onChoose(file);
        e.target.value = '';
      }}
    />
  );
  if (small)
    return (
      <label className="button cursor-pointer focus-within:outline-2 focus-within:outline-gold">
        Another file
        {field}
      </label>
    );
  return (
    <div className="my-6 grid max-w-3xl gap-4 border-y border-hair py-8">
      <p>
        <label className="button button-main cursor-pointer focus-within:outline-2 focus-within:outline-gold">
          Choose a file
          {field}
        </label>
        <span className="ml-4 text-ink-2">or drop one anywhere: .xlsx, .ods, CSV or TSV</span>
      </p>
      <label className="grid gap-1">
        <span className="text-ink-2">Or paste cells that you copied from a spreadsheet</span>
        <textarea
          className="field h-28"
          aria-label="Pasted cells"
          onPaste={(e) => {
            const file = pastedFile(e.clipboardData.getData('text/plain'));
            if (!file) return;
            e.preventDefault();
            e.stopPropagation();
            onChoose(file);
          }}
        />
      </label>
      <p className="small">
        One row or one column a device, several runs beside each other, prices, facts, “n/a” and “crash on export”: it
        is read as it is, and you change what was read wrongly. Everything of it is stored, or nothing.
      </p>
    </div>
  );
}
