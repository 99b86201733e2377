/** Files that the library goes out as. */
export function ExportLinks() {
  return (
    <section aria-label="export" className="mb-4">
      <h3 className="text-small text-quiet mb-1">Export</h3>
      <ul className="flex flex-wrap gap-x-5 gap-y-1">
        {[
          ['exchange/library.zip', 'the whole library, zip'],
          ['exchange/machines.csv', 'a row per machine, CSV'],
          ['exchange/parts.csv', 'a row per part, CSV'],
          ['exchange/steady.csv', 'a row per steady state of the runs, CSV'],
          ['site.zip', 'pages for a web server, zip'],
        ].map(([path, words]) => (
          <li key={path}>
            <a href={`/api/${path}`} download className="underline underline-offset-2">
              {words}
            </a>
          </li>
        ))}
      </ul>
      <p className="text-small text-quiet mt-1">
        Serial numbers stay out. The zip takes published reports along, photos, their boxes burned
        in, and papers where that was said. CSV of the machines takes the watts at the laboratory’s
        caps along; CSV leaves out notes, settings, curves and sweeps. Pages are a folder for any
        web server: every machine that has watts with its report, all levels side by side, the open
        data; they take a few seconds for each machine.
      </p>
    </section>
  );
}
